import * as v from 'valibot';
import { Attempt, Refusal, SignedIn, Withdrawal, type Rubric } from '#core/model/facts.ts';
import type { Submission } from '#core/model/work.ts';
import { contentRange, UploadState, type HandingIn, type Part } from '#formats/desk/handing-in.ts';
import { LibrarySource } from '#formats/desk/library.ts';
import { WirePage } from '#formats/desk/wire.ts';
import { CfRubric, rubricFromCase } from '#formats/case/rubric.ts';

/** What the course desk answered, or why it didn't. */
export type Answer<T> =
  | { readonly kind: 'ok'; readonly value: T }
  | { readonly kind: 'not reached' }
  | { readonly kind: 'signed out' }
  | { readonly kind: 'refused'; readonly why: string }
  | { readonly kind: 'unreadable' };

const LONGEST_ANSWER_MS = 60_000;

/** Who asks the desk. One browser has one session: another tab may have signed somebody else in meanwhile. */
export interface DeskCaller {
  /** Desk and student, as the desk compares them with its session (docs/course-desk.md). */
  readonly of: string;
  /** Ends the asking, as if the desk could not be reached. */
  readonly signal: AbortSignal;
}

function asCaller({ of, signal }: DeskCaller): RequestInit {
  return { signal, headers: { 'Desk-Student': of } };
}

async function ask<T>(
  path: string,
  schema: v.GenericSchema<unknown, T>,
  init: RequestInit = {},
): Promise<Answer<T>> {
  let response: Response;
  try {
    const late = AbortSignal.timeout(LONGEST_ANSWER_MS);
    response = await fetch(path, {
      ...init,
      signal: init.signal ? AbortSignal.any([late, init.signal]) : late,
    });
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

export function factsAfter(cursor: number, caller: DeskCaller): Promise<Answer<WirePage>> {
  return ask(`/desk/facts?after=${cursor}`, WirePage, asCaller(caller));
}

/** The texts that the desk has a paper compared with. */
export function library(caller: DeskCaller): Promise<Answer<LibrarySource[]>> {
  return ask('/desk/library', v.array(LibrarySource), asCaller(caller));
}

export async function rubricById(id: string, caller: DeskCaller): Promise<Answer<Rubric>> {
  const answer = await ask(`/desk/rubrics/${encodeURIComponent(id)}`, CfRubric, asCaller(caller));
  return answer.kind === 'ok' ? { kind: 'ok', value: rubricFromCase(answer.value) } : answer;
}

/** Takes an attempt back, where the rules allow it. */
export function withdrawAttempt(
  assignmentId: string,
  attemptId: string,
  caller: DeskCaller,
): Promise<Answer<Withdrawal>> {
  const address = `/desk/assignments/${encodeURIComponent(assignmentId)}/attempts/${encodeURIComponent(attemptId)}`;
  return ask(address, Withdrawal, { ...asCaller(caller), method: 'DELETE' });
}

/** What became of a download. `bytes` of a broken one are its beginning, from which it can go on. */
export type Download =
  | { readonly kind: 'whole'; readonly bytes: Uint8Array<ArrayBuffer> }
  | { readonly kind: 'broken'; readonly bytes: Uint8Array<ArrayBuffer> }
  | { readonly kind: 'missing' }
  | { readonly kind: 'signed out' };

/**
 * Downloads a file, or goes on where an earlier try broke off (Range, RFC 9110).
 * @param size of the whole file in bytes
 */
export async function downloadFile(
  hash: string,
  size: number,
  beginning: Uint8Array<ArrayBuffer>,
  caller: DeskCaller,
  onProgress: (received: number) => void,
): Promise<Download> {
  const whole = new Uint8Array(size);
  let received = beginning.length < size ? beginning.length : 0;
  whole.set(beginning.subarray(0, received));
  try {
    const response = await fetch(`/desk/files/${hash}`, {
      signal: caller.signal,
      headers: { 'Desk-Student': caller.of, ...(received > 0 && { Range: `bytes=${received}-` }) },
    });
    if (response.status === 401) return { kind: 'signed out' };
    if (response.status === 404) return { kind: 'missing' };
    if (!response.ok || response.body === null) return { kind: 'broken', bytes: whole.slice(0, received) };
    // A server that knows no parts sends it from the beginning.
    if (response.status !== 206) received = 0;
    const reader = response.body.getReader();
    for (;;) {
      const { done, value } = await reader.read();
      if (done) break;
      if (received + value.length > size) return { kind: 'missing' };
      whole.set(value, received);
      received += value.length;
      onProgress(received);
    }
  } catch {
    return { kind: 'broken', bytes: whole.slice(0, received) };
  }
  return received === size
    ? { kind: 'whole', bytes: whole }
    : { kind: 'broken', bytes: whole.slice(0, received) };
}

/** How much of a file the desk has. */
export function uploadState(hash: string, caller: DeskCaller): Promise<Answer<UploadState>> {
  return ask(`/desk/uploads/${hash}`, UploadState, asCaller(caller));
}

/** Sends the next part of a file (Content-Range, RFC 9110). */
export function uploadPart(
  hash: string,
  part: Part,
  bytes: Uint8Array<ArrayBuffer>,
  caller: DeskCaller,
): Promise<Answer<UploadState>> {
  return ask(`/desk/uploads/${hash}`, UploadState, {
    method: 'PUT',
    headers: {
      'Desk-Student': caller.of,
      'Content-Type': 'application/octet-stream',
      'Content-Range': contentRange(part),
    },
    body: bytes,
    signal: caller.signal,
  });
}

/** Hands an attempt in, whose files the desk has. The same submission sent again is taken once. */
export function handIn(submission: Submission, caller: DeskCaller): Promise<Answer<Attempt>> {
  const { kind, note, files, post, items } = submission;
  const asked: HandingIn = { kind, note, files, post, items };
  return ask(`/desk/assignments/${encodeURIComponent(submission.assignmentId)}/attempts`, Attempt, {
    method: 'POST',
    headers: {
      'Desk-Student': caller.of,
      'Content-Type': 'application/json',
      'Idempotency-Key': submission.id,
    },
    body: JSON.stringify(asked),
    signal: caller.signal,
  });
}

/** Where the desk tells that there is something new; a stream of events can't say whose it is in a header. */
export function noticesAddress({ of }: DeskCaller): string {
  return `/desk/notices?for=${encodeURIComponent(of)}`;
}
