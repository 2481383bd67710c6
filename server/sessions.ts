import { createHash, randomBytes } from 'node:crypto';
import type { Request, RequestHandler, Response } from 'express';
import { instantOf } from '#core/model/ids.ts';
import type { Clock } from './clock.ts';
import type { DeskFolder } from './desk/desk-folder.ts';

const COOKIE = 'juncture_session';
/** Wrong codes within a minute before the desk stops listening for the rest of it. */
const MOST_WRONG = 20;
const MINUTE_MS = 60_000;

function hashToken(token: string): string {
  return createHash('sha256').update(token).digest('hex');
}

function tokenOf(request: Request): string | null {
  const cookies = (request.headers.cookie ?? '').split(/;\s*/);
  return cookies.find((cookie) => cookie.startsWith(`${COOKIE}=`))?.slice(COOKIE.length + 1) ?? null;
}

export interface Sessions {
  /** Whether name and code fit; starts a session if so. 'slow down' after too many wrong ones. */
  signIn(response: Response, studentId: string, code: string): 'signed in' | 'refused' | 'slow down';
  signOut(request: Request, response: Response): void;
  /** Answers 401 to whoever isn't signed in. */
  required: RequestHandler;
  /** The same for a page that a person looks at. @param sorry makes a page of a sentence */
  requiredPage(sorry: (sentence: string) => string): RequestHandler;
}

export function sessionsOf(desk: DeskFolder, clock: Clock): Sessions {
  let wrong: number[] = [];
  const isKnown = (token: string | null) =>
    token !== null && desk.state.sessions.some((session) => session.token === hashToken(token));
  const own = () => encodeURIComponent(`${desk.state.deskId}/${desk.state.student.id}`);
  /** A page says for whom it asks: the browser's session may be another's by now. */
  const isForOwnStudent = (request: Request) => {
    const named = request.get('Desk-Student') ?? request.query.for;
    return named === undefined || named === own();
  };
  return {
    signIn(response, studentId, code) {
      wrong = wrong.filter((at) => at > Date.now() - MINUTE_MS);
      if (wrong.length >= MOST_WRONG) return 'slow down';
      // Both are always looked at, so that the time taken doesn't tell which was wrong.
      const codeFits = desk.codeFits(code);
      if (!codeFits || studentId.trim().toLowerCase() !== desk.state.student.id) {
        wrong.push(Date.now());
        return 'refused';
      }
      const token = randomBytes(32).toString('base64url');
      desk.update((state) => ({
        ...state,
        sessions: [...state.sessions.slice(-50), { token: hashToken(token), at: instantOf(clock.now()) }],
      }));
      response.cookie(COOKIE, token, {
        httpOnly: true,
        sameSite: 'strict',
        path: '/',
        maxAge: 180 * 86_400_000,
      });
      return 'signed in';
    },
    signOut(request, response) {
      const token = tokenOf(request);
      if (token !== null)
        desk.update((state) => ({
          ...state,
          sessions: state.sessions.filter((session) => session.token !== hashToken(token)),
        }));
      response.clearCookie(COOKIE, { path: '/' });
    },
    requiredPage: (sorry) => (request, response, next) => {
      if (isKnown(tokenOf(request))) next();
      else response.status(401).send(sorry('Sign in to Juncture first, then come back to this page.'));
    },
    required(request, response, next) {
      if (isKnown(tokenOf(request)) && isForOwnStudent(request)) next();
      else response.status(401).json({ error: 'Sign in first.' });
    },
  };
}
