import express, { type ErrorRequestHandler, type Express, type RequestHandler } from 'express';
import helmet from 'helmet';
import multer from 'multer';
import { join } from 'node:path';
import * as v from 'valibot';
import type { SignedIn } from '#core/model/facts.ts';
import { instantOf } from '#core/model/ids.ts';
import { caseFromRubric } from '#formats/case/rubric.ts';
import { MOST_FILE_BYTES } from '#formats/unreadable.ts';
import type { Clock } from './clock.ts';
import type { DeskFolder } from './desk/desk-folder.ts';
import { factsAfter } from './desk/desk-state.ts';
import { takeAttempt, takeBack, type UploadedFile } from './desk/take-attempt.ts';
import type { Notices } from './notices.ts';
import { sessionsOf } from './sessions.ts';

export interface ServerParts {
  readonly desk: DeskFolder;
  readonly clock: Clock;
  readonly notices: Notices;
  /** The folder with the built application. */
  readonly appFolder: string;
  readonly port: number;
}

const SignIn = v.object({
  student: v.pipe(v.string(), v.maxLength(200)),
  code: v.pipe(v.string(), v.maxLength(200)),
});
const Key = v.pipe(v.string(), v.regex(/^[\w-]{8,80}$/));

/** Only the page itself may talk to the desk: the host is this one, and a change comes from this origin. */
function onlyFromHere(port: number): RequestHandler {
  const host = `127.0.0.1:${port}`;
  return (request, response, next) => {
    if (request.headers.host === `localhost:${port}`) response.redirect(308, `http://${host}${request.url}`);
    else if (request.headers.host !== host)
      response.status(421).json({ error: 'This address is not served here.' });
    else if (!['GET', 'HEAD'].includes(request.method) && request.headers.origin !== `http://${host}`)
      response.status(403).json({ error: 'The request came from another page.' });
    else next();
  };
}

const sayNothingInside: ErrorRequestHandler = (error: unknown, _request, response, next) => {
  if (response.headersSent) {
    next(error);
    return;
  }
  if (error instanceof multer.MulterError) {
    const tooLarge = error.code === 'LIMIT_FILE_SIZE';
    response
      .status(tooLarge ? 413 : 400)
      .json({ error: tooLarge ? 'The file is larger than 300 MB.' : 'The upload is not as expected.' });
    return;
  }
  console.error(error);
  response.status(500).json({ error: 'The course desk had a fault of its own. Try again in a while.' });
};

/** The server: the built application, and the course desk for the student who is signed in (docs/course-desk.md). */
export function createApp({ desk, clock, notices, appFolder, port }: ServerParts): Express {
  const app = express();
  const sessions = sessionsOf(desk, clock);
  app.disable('x-powered-by');
  app.use(
    helmet({
      contentSecurityPolicy: {
        useDefaults: false,
        directives: {
          defaultSrc: ["'self'"],
          scriptSrc: ["'self'", "'wasm-unsafe-eval'"],
          workerSrc: ["'self'"],
          styleSrc: ["'self'", "'unsafe-inline'"],
          imgSrc: ["'self'", 'data:', 'blob:'],
          mediaSrc: ["'self'", 'blob:'],
          fontSrc: ["'self'", 'data:'],
          connectSrc: ["'self'"],
          objectSrc: ["'none'"],
          baseUri: ["'none'"],
          formAction: ["'self'"],
          frameAncestors: ["'none'"],
        },
      },
      strictTransportSecurity: false,
    }),
    onlyFromHere(port),
  );

  const signedIn = (): SignedIn => ({
    deskId: desk.state.deskId,
    deskName: desk.state.deskName,
    studentId: desk.state.student.id,
    studentName: desk.state.student.name,
    now: instantOf(clock.now()),
  });

  app.post('/desk/session', express.json({ limit: '4kb' }), (request, response) => {
    const given = v.safeParse(SignIn, request.body);
    const result = given.success
      ? sessions.signIn(response, given.output.student, given.output.code)
      : 'refused';
    if (result === 'signed in') response.json(signedIn());
    else if (result === 'slow down') response.status(429).json({ error: 'Too many tries. Wait a minute.' });
    else response.status(403).json({ error: 'Name and access code don’t fit together.' });
  });
  app.get('/desk/session', sessions.required, (_request, response) => {
    response.json(signedIn());
  });
  app.delete('/desk/session', (request, response) => {
    sessions.signOut(request, response);
    response.status(204).end();
  });

  app.get('/desk/facts', sessions.required, (request, response) => {
    const after = Number(request.query.after ?? 0);
    response.set('Cache-Control', 'no-store');
    response.json(factsAfter(desk.state, Number.isFinite(after) ? after : 0, instantOf(clock.now())));
  });
  app.get('/desk/rubrics/:id', sessions.required, (request, response) => {
    const rubric = desk.state.rubrics.find((r) => r.id === request.params.id);
    if (rubric === undefined) response.status(404).json({ error: 'There is no such rubric.' });
    else response.json(caseFromRubric(rubric));
  });
  app.get('/desk/files/:hash', sessions.required, (request, response) => {
    const path = desk.pathOfFile(String(request.params.hash));
    if (path === null) response.status(404).json({ error: 'There is no such file.' });
    else
      response.sendFile(path, { headers: { 'Content-Type': 'application/octet-stream' }, dotfiles: 'allow' });
  });
  app.get('/desk/notices', sessions.required, (_request, response) => {
    notices.listen(response, desk.state.facts.length);
  });

  const upload = multer({
    storage: multer.memoryStorage(),
    defParamCharset: 'utf8',
    limits: { fileSize: MOST_FILE_BYTES, files: 2, fields: 4, fieldSize: 100_000 },
  });
  app.post(
    '/desk/assignments/:id/attempts',
    sessions.required,
    upload.fields([
      { name: 'paper', maxCount: 1 },
      { name: 'response', maxCount: 1 },
    ]),
    async (request, response) => {
      const files = request.files as Partial<Record<string, Express.Multer.File[]>> | undefined;
      const paper = uploadedFile(files?.paper?.at(0));
      const key = v.safeParse(Key, request.headers['idempotency-key']);
      if (paper === null || !key.success) {
        response.status(400).json({ error: 'An attempt needs a paper and a key of its own.' });
        return;
      }
      const { note } = request.body as { note?: unknown };
      const taken = await takeAttempt(desk, clock.now(), {
        assignmentId: String(request.params.id),
        key: key.output,
        note: typeof note === 'string' ? note : '',
        paper,
        response: uploadedFile(files?.response?.at(0)),
      });
      if (taken.kind === 'refused') {
        response.status(taken.status).json({ error: taken.why });
        return;
      }
      response.status(taken.again ? 200 : 201).json(taken.attempt);
      if (!taken.again) notices.tell(desk.state.facts.length);
    },
  );
  app.delete('/desk/assignments/:id/attempts/:attempt', sessions.required, (request, response) => {
    const { id, attempt } = request.params;
    const result = takeBack(desk, clock.now(), String(id), String(attempt));
    if (result.kind === 'refused') {
      response.status(result.status).json({ error: result.why });
      return;
    }
    response.json(result.withdrawal);
    if (!result.again) notices.tell(desk.state.facts.length);
  });
  app.use('/desk', (_request, response) => {
    response.status(404).json({ error: 'The course desk has nothing at this address.' });
  });

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

function uploadedFile(file: Express.Multer.File | undefined): UploadedFile | null {
  if (file === undefined) return null;
  const name = file.originalname.replace(/[\\/:*?"<>|\p{Cc}]/gu, '_').slice(0, 200);
  return { name, mediaType: file.mimetype.slice(0, 200), bytes: new Uint8Array(file.buffer) };
}
