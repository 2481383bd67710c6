import * as v from 'valibot';
import { Attempt, FactsPage, Refusal, SignedIn, type Rubric } from '#core/model/facts.ts';
import type { Submission } from '#core/model/work.ts';
import { CfRubric, rubricFromCase } from '#formats/case/rubric.ts';

/** What the course desk answered, or why it didn't. */
export type Answer<T> =
  | { readonly kind: 'ok'; readonly value: T }
  | { readonly kind: 'not reached' }
  | { readonly kind: 'signed out' }
  | { readonly kind: 'refused'; readonly why: string }
  | { readonly kind: 'unreadable' };

async function ask<T>(
  path: string,
  schema: v.GenericSchema<unknown, T>,
  init: RequestInit = {},
): Promise<Answer<T>> {
  let response: Response;
  try {
    response = await fetch(path, { ...init, signal: init.signal ?? AbortSignal.timeout(60_000) });
  } catch {
    return { kind: 'not reached' };
  }
  if (response.status === 401) return { kind: 'signed out' };
  if (response.status >= 500) return { kind: 'not reached' };
  const body: unknown = await response.json().catch(() => null);
  if (!response.ok) {
    const refusal = v.safeParse(Refusal, body);
    return { kind: 'refused', why: refusal.success ? refusal.output.error : '' };
  }
  const parsed = v.safeParse(schema, body);
  return parsed.success ? { kind: 'ok', value: parsed.output } : { kind: 'unreadable' };
}

export function signIn(student: string, code: string): Promise<Answer<SignedIn>> {
  return ask('/desk/session', SignedIn, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ student, code }),
  });
}

export async function signOut(): Promise<void> {
  await fetch('/desk/session', { method: 'DELETE' }).catch(() => undefined);
}

export function currentSession(): Promise<Answer<SignedIn>> {
  return ask('/desk/session', SignedIn);
}

export function factsAfter(cursor: number): Promise<Answer<FactsPage>> {
  return ask(`/desk/facts?after=${cursor}`, FactsPage);
}

export async function rubricById(id: string): Promise<Answer<Rubric>> {
  const answer = await ask(`/desk/rubrics/${encodeURIComponent(id)}`, CfRubric);
  return answer.kind === 'ok' ? { kind: 'ok', value: rubricFromCase(answer.value) } : answer;
}

export async function downloadFile(hash: string): Promise<Uint8Array<ArrayBuffer> | null> {
  try {
    const response = await fetch(`/desk/files/${hash}`);
    return response.ok ? new Uint8Array(await response.arrayBuffer()) : null;
  } catch {
    return null;
  }
}

const WORD_TYPE = 'application/vnd.openxmlformats-officedocument.wordprocessingml.document';

/** Hands an attempt in. The same submission sent again is taken once. */
export function handIn(
  submission: Submission,
  paper: Uint8Array<ArrayBuffer>,
  response: Uint8Array<ArrayBuffer>,
): Promise<Answer<Attempt>> {
  const form = new FormData();
  form.set('note', submission.note);
  form.set('paper', new Blob([paper], { type: WORD_TYPE }), submission.paper.name);
  form.set('response', new Blob([response], { type: WORD_TYPE }), submission.response.name);
  return ask(`/desk/assignments/${encodeURIComponent(submission.assignmentId)}/attempts`, Attempt, {
    method: 'POST',
    headers: { 'Idempotency-Key': submission.id },
    body: form,
  });
}
