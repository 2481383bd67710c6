import { expect, it } from 'vitest';
import { earlierAttempts } from './earlier.ts';

type View = Parameters<typeof earlierAttempts>[0];

const file = (hash: string, role = 'marked') => ({ hash, role });
const attempt = (number: number, ...files: object[]) => ({ attempt: { number }, marking: { files } });
const view = (markedFile: object | null, ...attempts: object[]) =>
  ({ attempts, markedFile }) as unknown as View;

it('earlier attempts are what came back before', () => {
  const two = view(file('b'), attempt(1, file('a'), file('r', 'report')), attempt(2, file('b')));
  expect(earlierAttempts(two, 'marked')).toEqual(['a']);
  expect(earlierAttempts(two, 'draft')).toEqual(['a', 'b']);
});

it('a paper of a draft stage, or one that was dropped, is one of the draft', () => {
  const stage = view(file('s'));
  expect(earlierAttempts(stage, 'draft')).toEqual(['s']);
  expect(earlierAttempts(stage, 'marked')).toEqual([]);
  expect(earlierAttempts(view(null), 'draft')).toEqual([]);
});
