import express, { type Express } from 'express';
import { join } from 'node:path';
import { deskRoutes, type DeskParts } from './desk/routes.ts';
import { NO_TRIAL, trying, type Trial } from './trial.ts';
import { onlyFromHere, safeHeaders, sayNothingInside } from './guards.ts';

export interface ServerParts extends DeskParts {
  /** The folder with the built application. */
  readonly appFolder: string;
  readonly port: number;
  /** How the desk is set for a try. */
  readonly trial?: Trial;
}

/** The server: the built application, and the course desk. */
export function createApp({ appFolder, port, trial = NO_TRIAL, ...parts }: ServerParts): Express {
  const app = express();
  app.disable('x-powered-by');
  app.use(safeHeaders, onlyFromHere(port));
  app.use('/desk', trying(trial), deskRoutes(parts));
  app.use(
    express.static(appFolder, { index: false, immutable: true, maxAge: '1y', setHeaders: shortForPage }),
  );
  app.get('/{*path}', (request, response) => {
    // A missing asset must not look like the page.
    if (/\.\w{1,5}$/.test(request.path)) response.status(404).end();
    else response.sendFile(join(appFolder, 'index.html'), { headers: { 'Cache-Control': 'no-cache' } });
  });
  app.use(sayNothingInside);
  return app;
}

function shortForPage(response: { setHeader(name: string, value: string): unknown }, path: string): void {
  if (!/[\\/]assets[\\/]/.test(path)) response.setHeader('Cache-Control', 'no-cache');
}
