import { describe, expect, it } from 'vitest';
import { exampleRemark, wordsTarget } from '../model/example.ts';
import { wordsToSeek } from './seek.ts';

const remark = (text: string, exact: string | null) =>
  exampleRemark({ id: 'r', text, ...(exact !== null && { targets: [wordsTarget(exact, 1)] }) });

describe('words that a remark may mean wherever they stand', () => {
  it('are those it replaces, quotes, or hangs on, where they are few', () => {
    expect(wordsToSeek(remark('Say “suggests” instead of “proves” throughout.', 'This proves'))).toEqual([
      'proves',
      'suggests',
      'This proves',
    ]);
    expect(wordsToSeek(remark('Too strong.', 'proves'))).toEqual(['proves']);
    expect(wordsToSeek(remark('Too strong.', 'This proves that the dams work.'))).toEqual([]);
    expect(wordsToSeek(remark('Well done.', null))).toEqual([]);
  });
});
