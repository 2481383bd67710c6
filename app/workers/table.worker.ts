import { expose } from 'comlink';
import { courseOfTable } from '#formats/grades/grade-table.ts';
import { readGrades, tableIn } from '#formats/grades/read-grades.ts';
import { readRubrics, rubricsFromPaste } from '#formats/rubric/read-rubric.ts';
import type { TableWorker } from './protocol.ts';
import { reading } from './reading.ts';

const worker: TableWorker = {
  readRubrics: (bytes, title) => reading(() => readRubrics(bytes, title)),
  pasteRubrics: ({ html, text }, title) => reading(() => rubricsFromPaste(html, text, title)),
  readGrades: (files) => reading(() => readGrades(files)),
  pasteGrades: ({ html, text }) => reading(() => tableIn(html, text)),
  courseOfTable,
};
expose(worker);
