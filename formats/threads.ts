import type { Instant } from '#core/model/ids.ts';
import type { MarkReply } from './marked-paper.ts';

/** An answer as a file has it: beside the others, with the id of what it answers. */
export interface LooseReply {
  readonly id: string;
  readonly answers: string;
  readonly author: string;
  readonly at: Instant | null;
  readonly text: string;
}

/** Answers may be nested so deep; a chain that goes on is put flat below the last, so that nothing is lost. */
const DEEPEST_REPLY = 64;

/** The answers to one remark, nested as they answer one another. Answers that go round in a circle stand once. */
export function repliesTo(id: string, all: readonly LooseReply[]): MarkReply[] {
  const byAnswered = new Map<string, LooseReply[]>();
  for (const reply of all) byAnswered.set(reply.answers, [...(byAnswered.get(reply.answers) ?? []), reply]);
  const seen = new Set([id]);
  const below = (answered: string, depth: number): MarkReply[] => {
    const own = (byAnswered.get(answered) ?? []).filter((reply) => !seen.has(reply.id));
    for (const reply of own) seen.add(reply.id);
    if (depth >= DEEPEST_REPLY) return flat(own);
    return own.map((reply) => ({ ...said(reply), replies: below(reply.id, depth + 1) }));
  };
  const flat = (first: readonly LooseReply[]): MarkReply[] => {
    const found: MarkReply[] = [];
    const left = [...first];
    for (let next = left.shift(); next !== undefined; next = left.shift()) {
      found.push({ ...said(next), replies: [] });
      for (const reply of byAnswered.get(next.id) ?? [])
        if (!seen.has(reply.id)) {
          seen.add(reply.id);
          left.push(reply);
        }
    }
    return found;
  };
  return below(id, 1);
}

function said({ author, at, text }: LooseReply) {
  return { author, at, text };
}
