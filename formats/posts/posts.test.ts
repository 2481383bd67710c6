import { describe, expect, it } from 'vitest';
import { exactOf } from '../marked-paper.ts';
import { recognise } from '../recognise.ts';
import { readPosts } from './read-posts.ts';

const post = (more: object = {}) => ({
  id: 'one',
  author: { name: 'Ines Tarrow', role: 'self' },
  at: '2026-11-01T10:00:00.000Z',
  answers: null,
  text: 'The common belongs to the trust.\n\nNobody else has a right.',
  comments: [],
  ...more,
});
const comment = (more: object = {}) => ({
  id: 'c',
  author: { name: 'Lindiwe Strand', role: 'instructor' },
  at: null,
  quote: null,
  text: 'Page number?',
  ...more,
});
const bytes = (...posts: object[]) =>
  new TextEncoder().encode(
    JSON.stringify({ type: 'discussion', title: 'What is a common?', posts }, null, 1),
  );

describe('posts of a discussion', () => {
  it('are a text, post after post, each with who wrote it to whom', () => {
    const answer = post({
      id: 'two',
      author: { name: 'Lena Fisk', role: 'peer' },
      answers: 'one',
      text: 'And the reeve?',
    });
    expect(readPosts(bytes(post(), answer)).paper.blocks.map(({ text }) => text)).toEqual([
      'What is a common?',
      'Ines Tarrow, 2026-11-01, 10:00 UTC',
      'The common belongs to the trust.',
      'Nobody else has a right.',
      'Lena Fisk, to Ines Tarrow, 2026-11-01, 10:00 UTC',
      'And the reeve?',
    ]);
  });

  it('have comments on their very words, on the head for all of a post, or nowhere where the words are not', () => {
    const { marks, paper } = readPosts(
      bytes(
        post({
          comments: [
            comment({ quote: 'belongs to the trust' }),
            comment({ id: 'd' }),
            comment({ id: 'e', quote: 'no such words' }),
          ],
        }),
      ),
    );
    expect(marks.map(exactOf)).toEqual(['belongs to the trust', 'Ines Tarrow, 2026-11-01, 10:00 UTC', null]);
    expect(marks[2].targets).toEqual([{ kind: 'unplaced', said: 'no such words' }]);
    const { from, to } = marks[0].anchor ?? { from: 0, to: 0 };
    expect(paper.text.slice(from, to)).toBe('belongs to the trust');
  });

  it('are told by what they hold, and refused in one sentence where they are damaged', () => {
    expect(recognise(bytes(post())).kind).toBe('posts');
    expect(() => readPosts(bytes(post({ at: 'yesterday' })))).toThrow('damaged posts: posts.0.at');
    expect(() => readPosts(bytes(post()).slice(0, 40))).toThrow('damaged posts');
  });
});
