import express, { Router, type Request } from 'express';
import * as v from 'valibot';
import { instantOf } from '#core/model/ids.ts';
import { pairOf } from '#core/quiz/question.ts';
import type { Sessions } from '../sessions.ts';
import type { KeptQuestion } from './quiz.ts';
import {
  assignmentIn,
  attemptsIn,
  closingFor,
  countingAttempts,
  markingsIn,
  ruleAgainst,
  zoneOf,
} from './record.ts';
import type { DeskParts } from './routes.ts';
import {
  answerField,
  beginPage,
  endedPage,
  partnerField,
  placeField,
  questionPage,
  reviewPage,
  seenField,
  sorryPage,
} from './sitting-pages.ts';
import {
  answerInSitting,
  attemptIdOf,
  beginSitting,
  endOverdue,
  endSitting,
  openSitting,
  quizOf,
} from './sittings.ts';

/** A question's form as it arrives: several values under one name are a list. */
const AnswerForm = v.record(v.string(), v.union([v.string(), v.array(v.string())]));
type AnswerForm = v.InferOutput<typeof AnswerForm>;

const listOf = (value: string | string[] | undefined): string[] =>
  value === undefined ? [] : typeof value === 'string' ? [value] : value;

/** An answer as a sitting keeps it. */
function answerIn(form: AnswerForm, { kind, choices }: KeptQuestion): string[] {
  const fields = form as Readonly<Partial<AnswerForm>>;
  const one = (name: string) => listOf(fields[name]).at(0) ?? '';
  switch (kind) {
    case 'order':
      return choices.flatMap(({ id }) =>
        one(placeField(id)) === '' ? [] : [pairOf(id, one(placeField(id)))],
      );
    case 'pairs':
      return choices.flatMap(({ id }) =>
        one(partnerField(id)) === '' ? [] : [pairOf(id, one(partnerField(id)))],
      );
    case 'one':
    case 'several':
    case 'number':
    case 'short':
    case 'long':
      return listOf(fields[answerField]).filter((value) => value !== '');
  }
}

type Sorry = (sentence: string, assignmentId?: string | null) => string;

/** Taking a quiz on the desk's own pages; below `/desk`. */
export function sittingRoutes(parts: DeskParts, sessions: Sessions): Router {
  const { desk, clock, notices } = parts;
  const router = Router();
  const sorry: Sorry = (sentence, assignmentId = null) =>
    sorryPage(desk.state.deskName, sentence, assignmentId);
  router.use(['/quizzes', '/sittings'], sessions.requiredPage(sorry), (_request, response, next) => {
    if (endOverdue(desk, clock.now()) > 0) notices.tell(desk.state.facts.length);
    response.set('Cache-Control', 'no-store');
    next();
  });
  router.use(beginningRoutes(parts, sorry), takingRoutes(parts, sorry));
  return router;
}

/** What a quiz is, and the beginning of a sitting. */
function beginningRoutes({ desk, clock }: DeskParts, sorry: Sorry): Router {
  const router = Router();
  router.get('/quizzes/:id', (request, response) => {
    const { id } = request.params;
    const assignment = assignmentIn(desk.state, id);
    const quiz = quizOf(desk.state, id);
    if (assignment === undefined || quiz === undefined) {
      response.status(404).send(sorry('There is no such quiz at this course desk.'));
      return;
    }
    const used = countingAttempts(desk.state, assignment).length;
    const barred = ruleAgainst(assignment, used, clock.now());
    const open = openSitting(desk.state, id);
    const closes = closingFor(assignment, used);
    response.send(
      beginPage({
        deskName: desk.state.deskName,
        zone: zoneOf(desk.state, assignment),
        assignment,
        quiz,
        used,
        barred,
        open,
        closes,
      }),
    );
  });
  router.post('/quizzes/:id/sittings', (request, response) => {
    const { id } = request.params;
    const begun = beginSitting(desk, clock.now(), id);
    if (begun.kind === 'sitting') response.redirect(303, `/desk/sittings/${begun.sitting.id}/1`);
    else response.status(begun.status).send(sorry(begun.why, id));
  });
  return router;
}

/** A sitting that goes on: its questions, its answers, its end. */
function takingRoutes({ desk, clock, notices }: DeskParts, sorry: Sorry): Router {
  const router = Router();
  const form = express.urlencoded({ extended: false, limit: '100kb' });
  const named = (request: Request) => {
    const sitting = desk.state.sittings.find(({ id }) => id === request.params.sitting);
    const assignment = sitting && assignmentIn(desk.state, sitting.assignmentId);
    const quiz = sitting && quizOf(desk.state, sitting.assignmentId);
    return sitting === undefined || assignment === undefined || quiz === undefined
      ? null
      : {
          deskName: desk.state.deskName,
          zone: zoneOf(desk.state, assignment),
          now: instantOf(clock.now()),
          sitting,
          assignment,
          quiz,
        };
  };
  const endedFor = (found: NonNullable<ReturnType<typeof named>>) => {
    const { sitting, assignment } = found;
    const attempt = attemptsIn(desk.state).find(({ id }) => id === attemptIdOf(sitting));
    if (attempt === undefined) return sorry('This sitting was taken back.', assignment.id);
    const marking = markingsIn(desk.state, assignment).findLast(({ attemptId }) => attemptId === attempt.id);
    return endedPage(found, attempt, marking);
  };

  router.get('/sittings/:sitting/:to', (request, response) => {
    const found = named(request);
    if (found === null) {
      response.status(404).send(sorry('There is no such sitting.'));
      return;
    }
    const number = Number(request.params.to);
    if (found.sitting.endedAt !== null) response.send(endedFor(found));
    else if (request.params.to === 'review') response.send(reviewPage(found));
    else if (number >= 1 && number <= found.quiz.items.length && Number.isInteger(number))
      response.send(questionPage({ ...found, number }));
    else response.status(404).send(sorry('There is no such question.', found.assignment.id));
  });
  router.post('/sittings/:sitting/end', (request, response) => {
    const found = named(request);
    if (found === null) {
      response.status(404).send(sorry('There is no such sitting.'));
      return;
    }
    endSitting(desk, clock.now(), found.sitting.id);
    notices.tell(desk.state.facts.length);
    response.redirect(303, `/desk/sittings/${found.sitting.id}/review`);
  });
  router.post('/sittings/:sitting/:to', form, (request, response) => {
    const found = named(request);
    const asked = v.safeParse(AnswerForm, request.body);
    const question = found?.quiz.items.at(Number(request.params.to) - 1);
    if (found === null || question === undefined || !asked.success) {
      response.status(404).send(sorry('There is no such question.'));
      return;
    }
    const answer = answerIn(asked.output, question);
    const keep = () => answerInSitting(desk, clock.now(), found.sitting.id, question.id, answer);
    // The script keeps what is typed and stays on the page; a form goes on to where its button says. What a page that is
    // left sends with its last breath has no headers of its own.
    const keeps = request.get('Desk-Keep') !== undefined || 'desk-keep' in asked.output;
    if (keeps) response.status(keep() === 'kept' ? 204 : 409).end();
    else {
      const { to, [seenField]: seen } = asked.output as Readonly<Partial<AnswerForm>>;
      if (seen !== JSON.stringify(answer)) keep();
      const next = typeof to === 'string' && /^\d{1,3}$/.test(to) ? to : 'review';
      response.redirect(303, `/desk/sittings/${found.sitting.id}/${next}`);
    }
  });
  return router;
}
