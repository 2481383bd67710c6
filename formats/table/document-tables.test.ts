import { strToU8, zipSync } from 'fflate';
import { expect, test } from 'vitest';
import { readDocxTables } from './document-tables.ts';

const cell = (text: string, properties = '') =>
  `<w:tc><w:tcPr>${properties}</w:tcPr><w:p><w:r><w:t>${text}</w:t></w:r></w:p></w:tc>`;
const starts = '<w:vMerge w:val="restart"/>';
const goesOn = '<w:vMerge/>';
const wide = '<w:gridSpan w:val="2"/>';

const word = (...rows: readonly string[]) =>
  zipSync({
    '[Content_Types].xml': strToU8('<Types/>'),
    'word/document.xml': strToU8(
      `<w:document xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main"><w:body><w:tbl>${rows.map((row) => `<w:tr>${row}</w:tr>`).join('')}</w:tbl></w:body></w:document>`,
    ),
  });

test('cells joined over rows and columns of a Word table stand once, and keep the columns of the rest', () => {
  const [grid] = readDocxTables(
    word(
      cell('Wells', starts) + cell('read', starts) + cell('why'),
      cell('', goesOn) + cell('', goesOn) + cell('which'),
      cell('', goesOn) + cell('mapped', wide),
      cell('Peat', starts) + cell('cored', wide),
      cell('', goesOn) + cell('dated') + cell('when'),
    ),
  );
  expect(grid.rows).toEqual([
    ['Wells', 'read', 'why'],
    ['', '', 'which'],
    ['', 'mapped', ''],
    ['Peat', 'cored', ''],
    ['', 'dated', 'when'],
  ]);
  expect(grid.merged).toEqual([
    { row: 0, column: 0 },
    { row: 0, column: 1 },
    { row: 2, column: 1 },
    { row: 3, column: 0 },
    { row: 3, column: 1 },
  ]);
});
