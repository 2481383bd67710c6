import type { ErrorRequestHandler, RequestHandler } from 'express';
import helmet from 'helmet';
import * as v from 'valibot';

/** The page loads from here alone, and is framed by no other. */
export const safeHeaders: RequestHandler = helmet({
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
  // Without a referrer a browser calls the origin of a form null, and the desk's own forms would be refused.
  referrerPolicy: { policy: 'same-origin' },
});

/** Only the page itself may talk to the desk: the host is this one, and a change comes from this origin. */
export function onlyFromHere(port: number): RequestHandler {
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

/** A request that can't be read, as Express's own parsers tell it: too large, broken off, no JSON. */
const BrokenRequest = v.object({ status: v.picklist([400, 413]), type: v.string() });

/** An upload that is not as it should be is named; of a fault of the server nothing is told but that it was one. */
export const sayNothingInside: ErrorRequestHandler = (error: unknown, _request, response, next) => {
  if (response.headersSent) {
    next(error);
    return;
  }
  const broken = v.safeParse(BrokenRequest, error);
  if (broken.success) {
    const { status } = broken.output;
    response.status(status).json({
      error: status === 413 ? 'That is more than is taken at once.' : 'The request is not as expected.',
    });
    return;
  }
  console.error(error);
  response.status(500).json({ error: 'The course desk had a fault of its own. Try again in a while.' });
};
