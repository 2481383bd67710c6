import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { stances, type Stance } from '../model/work.ts';
import { exampleSaying } from './example.ts';
import type { Saying } from './saying.ts';
import { asTaught, taughtBy, type Correction } from './taught.ts';

const text = 'Who told you?';
/** A remark that is taken for a fix, and might as well be a question. */
const saying: Saying = (() => {
  const said = exampleSaying('fix', { sure: true });
  const [part] = said.parts;
  return {
    ...said,
    parts: [{ ...part, to: text.length, likely: { ...part.likely, fix: 0.5, question: 0.3, note: 0.2 } }],
  };
})();
const correction = (said: string, stance: Stance): Correction => ({ text: said, proposed: 'fix', stance });

describe('what corrections teach', () => {
  it('is a habit from two alike on, and never surely', () => {
    const one = [correction('Where was it?', 'question')];
    const two = [...one, correction('By whom?', 'question')];
    expect(asTaught(saying, text, taughtBy(one))).toBe(saying);
    expect(asTaught(saying, text, taughtBy(two))).toMatchObject({
      stance: 'question',
      callsForChange: false,
      sure: false,
      because: { kind: 'put right', times: 2 },
    });
  });

  it('is nothing where they contradict one another, or are about something else', () => {
    const against = [
      correction('Where was it?', 'question'),
      correction('By whom?', 'question'),
      correction('On what day?', 'praise'),
    ];
    expect(asTaught(saying, text, taughtBy(against)).stance).toBe('fix');
    const others = [correction('Cite this.', 'note'), correction('Cut this.', 'note')];
    expect(asTaught(saying, text, taughtBy(others)).stance).toBe('fix');
  });

  it('is from the first one on what the very same words say', () => {
    const same = taughtBy([correction('who told you', 'note')]);
    expect(asTaught(saying, text, same)).toMatchObject({
      stance: 'note',
      because: { kind: 'put right', times: 1 },
    });
  });

  it('leaves alone what is far more likely something else', () => {
    const sure = exampleSaying('fix');
    const [part] = sure.parts;
    const surely = {
      ...sure,
      parts: [{ ...part, to: text.length, likely: { ...part.likely, fix: 0.99, question: 0.01 } }],
    };
    const many = Array.from({ length: 9 }, (_, i) => correction(`Is it ${i}?`, 'question'));
    expect(asTaught(surely, text, taughtBy(many)).stance).toBe('fix');
  });

  it('doesn’t hang on the order in which they were made', () => {
    const made = fc.record({
      text: fc.constantFrom('Why?', 'Cite.', 'Who told you?', 'Nice.'),
      proposed: fc.constantFrom<Stance>(...stances),
      stance: fc.constantFrom<Stance>(...stances),
    });
    fc.assert(
      fc.property(fc.array(made, { maxLength: 8 }), fc.infiniteStream(fc.nat()), (list, keys) => {
        const shuffled = list
          .map((one) => ({ one, key: keys.next().value as number }))
          .sort((x, y) => x.key - y.key)
          .map(({ one }) => one);
        expect(asTaught(saying, text, taughtBy(shuffled))).toEqual(asTaught(saying, text, taughtBy(list)));
      }),
    );
  });
});
