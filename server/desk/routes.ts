import express, { Router } from 'express';
import * as v from 'valibot';
import type { SignedIn } from '#core/model/facts.ts';
import { instantOf } from '#core/model/ids.ts';
import { caseFromRubric } from '#formats/case/rubric.ts';
import { HandingIn, partOf } from '#formats/desk/handing-in.ts';
import type { Clock } from '../clock.ts';
import type { Notices } from '../notices.ts';
import { sessionsOf, type Sessions } from '../sessions.ts';
import type { DeskFolder } from './desk-folder.ts';
import { factsAfter } from './desk-state.ts';
import { sittingRoutes } from './sitting-routes.ts';
import { takeAttempt, takeBack } from './take-attempt.ts';

export interface DeskParts {
  readonly desk: DeskFolder;
  readonly clock: Clock;
  readonly notices: Notices;
}

const SignIn = v.object({
  student: v.pipe(v.string(), v.maxLength(200)),
  code: v.pipe(v.string(), v.maxLength(200)),
});
/** Notes, posts and answers of the longest kind that is taken, with what is told of the files. */
const MOST_REQUEST = '4mb';
/** A part larger than this would have to be sent again as a whole too often. */
const MOST_PART = '8mb';

const Key = v.pipe(v.string(), v.regex(/^[\w-]{8,80}$/));

/** The course desk for the student who is signed in, as docs/course-desk.md describes it; below `/desk`. */
export function deskRoutes(parts: DeskParts): Router {
  const sessions = sessionsOf(parts.desk, parts.clock);
  const router = Router();
  router.use(
    sessionRoutes(parts, sessions),
    readingRoutes(parts, sessions),
    uploadRoutes(parts, sessions),
    attemptRoutes(parts, sessions),
    sittingRoutes(parts, sessions),
  );
  router.use((_request, response) => {
    response.status(404).json({ error: 'The course desk has nothing at this address.' });
  });
  return router;
}

/** Signing in and out. */
function sessionRoutes({ desk, clock }: DeskParts, sessions: Sessions): Router {
  const router = Router();
  const signedIn = (): SignedIn => ({
    deskId: desk.state.deskId,
    deskName: desk.state.deskName,
    studentId: desk.state.student.id,
    studentName: desk.state.student.name,
    now: instantOf(clock.now()),
  });

  router.post('/session', express.json({ limit: '4kb' }), (request, response) => {
    const given = v.safeParse(SignIn, request.body);
    const result = given.success
      ? sessions.signIn(response, given.output.student, given.output.code)
      : 'refused';
    if (result === 'signed in') response.json(signedIn());
    else if (result === 'slow down') response.status(429).json({ error: 'Too many tries. Wait a minute.' });
    else response.status(403).json({ error: 'Name and access code don’t fit together.' });
  });
  router.get('/session', sessions.required, (_request, response) => {
    response.json(signedIn());
  });
  router.delete('/session', (request, response) => {
    sessions.signOut(request, response);
    response.status(204).end();
  });
  return router;
}

/** What the desk tells: facts, rubrics, files, and that there is something new. */
function readingRoutes({ desk, clock, notices }: DeskParts, sessions: Sessions): Router {
  const router = Router();
  router.get('/facts', sessions.required, (request, response) => {
    const after = Number(request.query.after ?? 0);
    response.set('Cache-Control', 'no-store');
    response.json(factsAfter(desk.state, Number.isFinite(after) ? after : 0, instantOf(clock.now())));
  });
  router.get('/rubrics/:id', sessions.required, (request, response) => {
    const rubric = desk.state.rubrics.find((r) => r.id === request.params.id);
    if (rubric === undefined) response.status(404).json({ error: 'There is no such rubric.' });
    else response.json(caseFromRubric(rubric));
  });
  router.get('/library', sessions.required, (_request, response) => {
    response.json(desk.state.library);
  });
  router.get('/files/:hash', sessions.required, (request, response) => {
    const path = desk.pathOfFile(String(request.params.hash));
    if (path === null) response.status(404).json({ error: 'There is no such file.' });
    else
      response.sendFile(path, { headers: { 'Content-Type': 'application/octet-stream' }, dotfiles: 'allow' });
  });
  router.get('/notices', sessions.required, (_request, response) => {
    notices.listen(response, desk.state.facts.length);
  });
  return router;
}

/** Handing in, and taking back what was handed in. */
function attemptRoutes({ desk, clock, notices }: DeskParts, sessions: Sessions): Router {
  const router = Router();
  router.post(
    '/assignments/:id/attempts',
    sessions.required,
    express.json({ limit: MOST_REQUEST }),
    async (request, response) => {
      const asked = v.safeParse(HandingIn, request.body);
      const key = v.safeParse(Key, request.headers['idempotency-key']);
      if (!asked.success || !key.success) {
        response.status(400).json({ error: 'An attempt needs what goes, and a key of its own.' });
        return;
      }
      const taken = await takeAttempt(desk, clock.now(), {
        assignmentId: String(request.params.id),
        key: key.output,
        asked: asked.output,
      });
      if (taken.kind === 'refused') {
        response.status(taken.status).json({ error: taken.why });
        return;
      }
      response.status(taken.again ? 200 : 201).json(taken.attempt);
      if (!taken.again) notices.tell(desk.state.facts.length);
    },
  );
  router.delete('/assignments/:id/attempts/:attempt', sessions.required, (request, response) => {
    const { id, attempt } = request.params;
    const result = takeBack(desk, clock.now(), String(id), String(attempt));
    if (result.kind === 'refused') {
      response.status(result.status).json({ error: result.why });
      return;
    }
    response.json(result.withdrawal);
    if (!result.again) notices.tell(desk.state.facts.length);
  });
  return router;
}

/** Files on their way in, part by part. */
function uploadRoutes({ desk }: DeskParts, sessions: Sessions): Router {
  const router = Router();
  router.get('/uploads/:hash', sessions.required, (request, response) => {
    const state = desk.uploads.stateOf(String(request.params.hash));
    response.set('Cache-Control', 'no-store');
    if (state === null) response.status(404).json({ error: 'An upload is named by its SHA-256.' });
    else response.json(state);
  });
  router.put(
    '/uploads/:hash',
    sessions.required,
    express.raw({ type: () => true, limit: MOST_PART }),
    async (request, response) => {
      const part = partOf(request.headers['content-range']);
      const bytes: unknown = request.body;
      if (part === null || !(bytes instanceof Uint8Array)) {
        response.status(400).json({ error: 'A part of a file says which bytes it is (Content-Range).' });
        return;
      }
      const taken = await desk.uploads.take(String(request.params.hash), part, bytes);
      if (taken.kind === 'refused') response.status(taken.status).json({ error: taken.why });
      else response.json(taken.state);
    },
  );
  return router;
}
