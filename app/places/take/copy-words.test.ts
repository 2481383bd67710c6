import { expect, it } from 'vitest';
import type { Target } from '#core/model/remark.ts';
import type { RemarkOut } from '#formats/annotated/remark-out.ts';
import { copyWords } from './copy-words.ts';

it('says where a remark is that is on no page', () => {
  const said = copyWords({ course: null });
  const at = (target: Target, page: number | null = null) =>
    said.head({ author: 'Dr Aune Keld', at: null, targets: [target] } as unknown as RemarkOut, page);
  expect(at({ kind: 'question', questionId: 'q', number: 3 })).toBe('question 3 · Dr Aune Keld');
  expect(at({ kind: 'time', fromS: 65.4, toS: null })).toBe('at 1:05 · Dr Aune Keld');
  expect(at({ kind: 'whole' })).toBe('Dr Aune Keld');
  expect(at({ kind: 'whole' }, 2)).toBe('page 2 · Dr Aune Keld');
});
