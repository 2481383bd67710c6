import fc from 'fast-check';
import { expect, it } from 'vitest';
import { channels } from '../model/channels.ts';
import { exampleRemark, wordsTarget } from '../model/example.ts';
import { doublesOf } from './doubled.ts';

const texts = ['Say which ditch you mean here.', 'Source?', 'The water table rose, it did not fall.', ''];

const remarks = fc
  .array(
    fc.record({
      text: fc.constantFrom(...texts),
      channel: fc.constantFrom(...channels),
      file: fc.constantFrom('a', 'b', null),
      author: fc.constantFrom('Keld', 'Wray'),
      exact: fc.constantFrom('wet', 'dry', null),
    }),
    { maxLength: 14 },
  )
  .map((list) =>
    list.map(({ text, channel, file, author, exact }, i) =>
      exampleRemark({
        id: String(i),
        text,
        channel,
        author: { name: author, role: 'instructor' },
        fileHash: file === null ? null : file.repeat(64),
        targets: [exact === null ? { kind: 'whole' } : wordsTarget(exact)],
      }),
    ),
  );

it('every remark counts once: by itself, or as the double of one that counts', () => {
  fc.assert(
    fc.property(remarks, (list) => {
      const doubles = doublesOf(list, new Map());
      const doubled = [...doubles.values()].flat().map(({ id }) => id as string);
      expect(new Set(doubled).size).toBe(doubled.length);
      for (const main of doubles.keys()) expect(doubled).not.toContain(main);
      for (const [main, others] of doubles) {
        const first = list.find(({ id }) => (id as string) === main);
        const sources = [first, ...others].map((one) => `${one?.channel} ${one?.fileHash}`);
        // One source never gives two places to the same remark.
        expect(new Set(sources).size).toBe(sources.length);
        for (const other of others) {
          expect(other.author.name).toBe(first?.author.name);
          expect(other.text).toBe(first?.text);
        }
      }
    }),
  );
});
