import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { exampleJudgement, exampleRemark, wordsTarget } from '../model/example.ts';
import { squeeze } from '../text/squeeze.ts';
import { placesElsewhere, targetsOf } from './elsewhere.ts';
import { passagesOf } from './passages.ts';

const TEXT =
  'This proves that the dams work. It Proves nothing else. The improves of one and the proves-all of another. It proves\nthat.';
const remark = (text: string, exact: string | null) =>
  exampleRemark({ id: 'r', text, ...(exact !== null && { targets: [wordsTarget(exact, 1)] }) });

describe('their places', () => {
  const at = (words: string, own: readonly { from: number; to: number }[] = []) =>
    placesElsewhere(TEXT, words, own).map(({ span }) => TEXT.slice(span.from, span.to));

  it('are whole words in any capitals, over line ends too, but for where it hangs', () => {
    expect(at('proves')).toEqual(['proves', 'Proves', 'proves', 'proves']);
    expect(at('proves', [{ from: 5, to: 11 }])).toEqual(['Proves', 'proves', 'proves']);
    expect(at('proves that')).toEqual(['proves that', 'proves\nthat']);
    expect(at('—')).toEqual([]);
  });

  it('become places of the remark that are found again', () => {
    const [, second] = placesElsewhere(TEXT, 'proves', []);
    const one = remark('Too strong.', 'This proves');
    const judged = exampleJudgement('r', { elsewhere: [second.quote] });
    const targets = targetsOf(one, new Map([['r', judged]]));
    const passages = passagesOf(targets, { from: 0, to: 11 }, squeeze(TEXT));
    expect(passages.map(({ from, to }) => TEXT.slice(from, to))).toEqual(['This proves', 'Proves']);
    expect(targetsOf(one, new Map())).toBe(one.targets);
  });

  it('hold the words wherever they are put in', () => {
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom('dam ', 'bog. ', 'peat\n', 'moss, '), { maxLength: 30 }),
        (parts) => {
          const text = parts.join('');
          const found = placesElsewhere(text, 'peat', []);
          expect(found.length).toBe(parts.filter((part) => part === 'peat\n').length);
          for (const { span, quote } of found) {
            expect(text.slice(span.from, span.to)).toBe('peat');
            expect(quote.exact).toBe('peat');
          }
        },
      ),
    );
  });
});
