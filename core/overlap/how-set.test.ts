import { expect, it } from 'vitest';
import { blocksOfLines, paperOf } from '../paper/paper.ts';
import { howSet } from './how-set.ts';

const WORDS = 'the water table came up within weeks';

it.each([
  [`We saw that ${WORDS}.`, false, false],
  [`We saw that “${WORDS}”.`, true, false],
  [`We saw that ${WORDS} (Hask, 2018).`, false, true],
  [`Hask (2018) saw that “${WORDS}”. We did not.`, true, true],
  [`She wrote “${WORDS}.” (Hask, 2018) We did not.`, true, true],
  [`We saw that ${WORDS}. Others did not (Hask, 2018).`, false, false],
])('%s', (line, quoted, cited) => {
  const paper = paperOf(blocksOfLines(`Before (Abery, 2011).\n${line}`));
  const from = paper.text.indexOf(WORDS);
  expect(howSet(paper, [{ from, to: from + WORDS.length }])).toEqual([{ quoted, cited }]);
});
