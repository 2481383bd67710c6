import express, { Router } from 'express';
import multer from 'multer';
import * as v from 'valibot';
import type { SignedIn } from '#core/model/facts.ts';
import { instantOf } from '#core/model/ids.ts';
import { caseFromRubric } from '#formats/case/rubric.ts';
import { MOST_FILE_BYTES } from '#formats/unreadable.ts';
import type { Clock } from '../clock.ts';
import type { Notices } from '../notices.ts';
import { sessionsOf, type Sessions } from '../sessions.ts';
import type { DeskFolder } from './desk-folder.ts';
import { factsAfter } from './desk-state.ts';
import { takeAttempt, takeBack, type UploadedFile } from './take-attempt.ts';

export interface DeskParts {
  readonly desk: DeskFolder;
  readonly clock: Clock;
  readonly notices: Notices;
}

const SignIn = v.object({
  student: v.pipe(v.string(), v.maxLength(200)),
  code: v.pipe(v.string(), v.maxLength(200)),
});
const Key = v.pipe(v.string(), v.regex(/^[\w-]{8,80}$/));

/** The course desk for the student who is signed in, as docs/course-desk.md describes it; below `/desk`. */
export function deskRoutes(parts: DeskParts): Router {
  const sessions = sessionsOf(parts.desk, parts.clock);
  const router = Router();
  router.use(sessionRoutes(parts, sessions), readingRoutes(parts, sessions), attemptRoutes(parts, sessions));
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
  const upload = multer({
    storage: multer.memoryStorage(),
    defParamCharset: 'utf8',
    limits: { fileSize: MOST_FILE_BYTES, files: 2, fields: 4, fieldSize: 100_000 },
  });
  router.post(
    '/assignments/:id/attempts',
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

function uploadedFile(file: Express.Multer.File | undefined): UploadedFile | null {
  if (file === undefined) return null;
  const name = file.originalname.replace(/[\\/:*?"<>|\p{Cc}]/gu, '_').slice(0, 200);
  return { name, mediaType: file.mimetype.slice(0, 200), bytes: new Uint8Array(file.buffer) };
}
