/** Growth: ten times the input may take at most fifteen times as long; one row a reader, and one a thing that a place shows. */
import { strToU8, zipSync } from 'fflate';
import { followPassages } from '#core/anchors/outcome.ts';
import { standingOf } from '#core/assignment/standing.ts';
import { viewOf, type AssignmentView } from '#core/assignment/view.ts';
import { recordsIn, type AssignmentRecordMaps } from '#core/assignment/records.ts';
import { differenceOf } from '#core/difference/difference.ts';
import { compareForReading } from '#core/difference/display.ts';
import { paperOf, type Paper } from '#core/paper/paper.ts';
import {
  exampleAssignment,
  exampleAttempt,
  exampleCourse,
  exampleJudgement,
  exampleMarking,
  exampleRemark,
  exampleRubric,
} from '#core/model/example.ts';
import { criterionSuggester } from '#core/rubric/suggest.ts';
import { likelyAssignment } from '#core/taking-in/likely.ts';
import { foldedText, placesOfWords } from '#core/text/find.ts';
import { newVocabulary, wordsOf } from '#core/text/words.ts';
import { readCourse } from '#formats/course/read-course.ts';
import { coursesOfGradebook, readGradebook } from '#formats/oneroster/read-gradebook.ts';
import { readGrades } from '#formats/grades/read-grades.ts';
import { readPaper } from '#formats/read-paper.ts';
import { readRemarksOnto } from '#formats/place-remarks.ts';
import { readHtmlTables } from '#formats/table/html.ts';
import { readDocxTables } from '#formats/table/document-tables.ts';
import type { DecimalString } from '#core/model/ids.ts';
import { rubricFromTable } from '#formats/rubric/rubric-table.ts';
import { readVtt } from '#formats/sound/read-vtt.ts';
import { readXfdf } from '#formats/xfdf/read-xfdf.ts';
import { writeQuizResults } from '#formats/qti/write-quiz.ts';
import { largePdf } from './large-pdf.ts';
import { row } from './measure.ts';

const MOST = 15;
const AT = Date.parse('2026-11-27T10:00:00Z');

const SUBJECTS = ['bog', 'well', 'dam', 'ditch', 'moss', 'peat', 'rain', 'heather', 'water', 'season'];
const VERBS = ['rose', 'fell', 'changed', 'was read', 'dried out', 'was measured', 'grew', 'sank'];
/** A sentence for each number, much like its neighbours and like none of them. */
const sentence = (n: number) =>
  `The ${SUBJECTS[n % 10]} number ${n} ${VERBS[(n * 7) % 8]} by ${(n * 37) % 101} mm in week ${n % 53}, as the ${SUBJECTS[(n * 3) % 10]} had.`;
const sentences = (count: number) => Array.from({ length: count }, (_, n) => sentence(n));
const times = (count: number, make: (n: number) => string) =>
  Array.from({ length: count }, (_, n) => make(n)).join('');

const W = 'xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main"';
function docx(count: number): Uint8Array {
  const body = times(
    count,
    (n) =>
      `<w:p><w:commentRangeStart w:id="${n}"/><w:r><w:t xml:space="preserve">${sentence(n)}</w:t></w:r><w:commentRangeEnd w:id="${n}"/><w:r><w:commentReference w:id="${n}"/></w:r><w:ins w:id="i${n}" w:author="A"><w:r><w:t> And more.</w:t></w:r></w:ins></w:p>`,
  );
  const rows = times(
    count,
    (n) =>
      `<w:tr><w:tc><w:p><w:r><w:t>Item ${n}</w:t></w:r></w:p></w:tc><w:tc><w:p><w:r><w:t>${n % 20}</w:t></w:r></w:p></w:tc></w:tr>`,
  );
  const comments = times(
    count,
    (n) =>
      `<w:comment w:id="${n}" w:author="Dr Keld"><w:p><w:r><w:t>Say why ${n}.</w:t></w:r></w:p></w:comment>`,
  );
  return zipSync({
    '[Content_Types].xml': strToU8('<Types/>'),
    'word/document.xml': strToU8(
      `<w:document ${W}><w:body>${body}<w:tbl>${rows}</w:tbl></w:body></w:document>`,
    ),
    'word/comments.xml': strToU8(`<w:comments ${W}>${comments}</w:comments>`),
  });
}

const ODF =
  'xmlns:office="urn:oasis:names:tc:opendocument:xmlns:office:1.0" xmlns:text="urn:oasis:names:tc:opendocument:xmlns:text:1.0" xmlns:dc="http://purl.org/dc/elements/1.1/"';
const odtBody = (count: number) =>
  times(
    count,
    (n) =>
      `<text:p><office:annotation office:name="a${n}"><dc:creator>Dr Keld</dc:creator><text:p>Say why ${n}.</text:p></office:annotation>${sentence(n)}<office:annotation-end office:name="a${n}"/></text:p>`,
  );
const odt = (count: number) =>
  zipSync({
    mimetype: strToU8('application/vnd.oasis.opendocument.text'),
    'content.xml': strToU8(
      `<office:document-content ${ODF}><office:body><office:text>${odtBody(count)}</office:text></office:body></office:document-content>`,
    ),
  });
const fodt = (count: number) =>
  strToU8(
    `<?xml version="1.0"?><office:document ${ODF} office:mimetype="application/vnd.oasis.opendocument.text"><office:body><office:text>${odtBody(count)}</office:text></office:body></office:document>`,
  );
const vtt = (count: number) =>
  strToU8(
    `WEBVTT\n\n${times(count, (n) => `00:${String(Math.floor(n / 60) % 60).padStart(2, '0')}:${String(n % 60).padStart(2, '0')}.000 --> 01:00:00.000\n${sentence(n)}\n\n`)}`,
  );
const annotations = (count: number) =>
  strToU8(
    JSON.stringify(
      sentences(count).map((exact, n) => ({
        '@context': 'http://www.w3.org/ns/anno.jsonld',
        id: `urn:a:${n}`,
        type: 'Annotation',
        body: { type: 'TextualBody', value: `Say why ${n}.` },
        target: { source: 'paper.txt', selector: { type: 'TextQuoteSelector', exact } },
      })),
    ),
  );
const posts = (count: number) =>
  strToU8(
    JSON.stringify({
      type: 'discussion',
      title: 'On wells',
      posts: sentences(count).map((text, n) => ({
        id: `p${n}`,
        author: { name: 'Ines Tarrow', role: 'self' },
        at: '2026-11-02T10:00:00.000Z',
        answers: n === 0 ? null : `p${n - 1}`,
        text,
        comments: [
          {
            id: `c${n}`,
            author: { name: 'Dr Keld', role: 'instructor' },
            at: null,
            quote: text.slice(4, 30),
            text: `Say why ${n}.`,
          },
        ],
      })),
    }),
  );
const csv = (count: number) =>
  strToU8(
    `Assignment,Category,Score,Possible,Due\n${times(count, (n) => `Lab ${n},Labs,${n % 20},20,2026-11-02\n`)}`,
  );
const html = (count: number) =>
  `<table><tr><th>Criterion</th><th>Low (2)</th><th>High (6)</th></tr>${times(count, (n) => `<tr><td>Criterion ${n}</td><td>${sentence(n)}</td><td>${sentence(n + 1)}</td></tr>`)}</table>`;
const courseJson = (count: number) =>
  JSON.stringify({
    scheme: 'weighted',
    categories: [{ id: 'labs', weight: '100', drop: 3 }],
    assignments: Array.from({ length: count }, (_, n) => ({
      id: `a${n}`,
      category: 'labs',
      possible: '20',
      attempts: [{ score: String(n % 21) }],
    })),
  });

const xfdf = (count: number) =>
  strToU8(
    `<?xml version="1.0"?><xfdf xmlns="http://ns.adobe.com/xfdf/"><annots>${times(count, (n) => `<highlight page="${n % 9}" rect="70,${n % 700},300,${(n % 700) + 12}" coords="70,12,300,12,70,0,300,0" name="x${n}" title="Dr Keld"><contents>Say why ${n}.</contents></highlight>`)}</annots></xfdf>`,
  );
const quiz = (count: number) =>
  writeQuizResults(
    {
      title: 'Wells',
      questions: Array.from({ length: count }, (_, n) => ({
        id: `q${n}`,
        number: n + 1,
        item: {
          title: `Question ${n}`,
          kind: 'long',
          prompt: sentence(n),
          choices: [],
          partners: [],
          correct: ['a'],
        },
        response: [sentence(n)],
        score: '1' as DecimalString,
        possible: '1' as DecimalString,
        feedback: `Say why ${n}.`,
      })),
    },
    '2026-11-02T10:00:00.000Z',
  );

const gradebook = (count: number) =>
  JSON.stringify({
    lineItems: Array.from({ length: count }, (_, n) => ({
      sourcedId: `l${n}`,
      status: 'active',
      title: `Lab ${n}`,
      class: { sourcedId: 'c' },
      resultValueMax: 20,
    })),
    results: Array.from({ length: count }, (_, n) => ({
      sourcedId: `r${n}`,
      status: 'active',
      lineItem: { sourcedId: `l${n}` },
      student: { sourcedId: 's' },
      scoreStatus: 'fully graded',
      score: n % 21,
      scoreDate: '2026-11-02',
    })),
  });
function readBook(text: string): unknown {
  const book = readGradebook([{ name: 'gradebook.json', text }]);
  if (book === null || book.results.length === 0) throw new Error('the gradebook was not read');
  return coursesOfGradebook(book, 's');
}

const paperWith = (count: number): Paper =>
  paperOf(sentences(count).map((text) => ({ kind: 'paragraph', level: 0, text })));
const editedPaper = (count: number): Paper =>
  paperOf(
    sentences(count).map((text, n) => ({
      kind: 'paragraph',
      level: 0,
      text: n % 9 === 0 ? text.replace(' by ', ' in all by some ') : text,
    })),
  );

const asRecord = (list: readonly { readonly id: string }[]) => new Map(list.map((one) => [one.id, one]));

/** An assignment with so many remarks, the same words here and there twice, and a rubric that they may hang on. */
function withRemarks(count: number): AssignmentRecordMaps {
  const remarks = Array.from({ length: count }, (_, n) =>
    exampleRemark({
      id: `r${n}`,
      text: sentence(n - (n % 50 === 49 ? 1 : 0)),
      order: n,
      channel: n % 3 === 0 ? 'criterion' : 'passage',
      criterionId: n % 3 === 0 ? `c-${(n % 4) + 1}` : null,
    }),
  );
  return {
    courses: asRecord([exampleCourse()]),
    assignments: asRecord([exampleAssignment({ rubricId: 'r' })]),
    rubrics: asRecord([exampleRubric([1, 2, 3, 4].map(() => ({ possible: '10' })))]),
    attempts: asRecord([exampleAttempt()]),
    markings: asRecord([
      exampleMarking({
        score: '30',
        criteria: [1, 2, 3, 4].map((n) => ({
          criterionId: `c-${n}`,
          points: '7',
          level: null,
          comment: '',
        })),
      }),
    ]),
    remarks: asRecord(remarks),
    judgements: new Map(
      remarks.flatMap(({ id }, n) =>
        n % 2 === 0 ? [[id, exampleJudgement(id, { decision: 'act' })] as const] : [],
      ),
    ),
    ...Object.fromEntries(
      [
        'withdrawals',
        'arrivals',
        'readings',
        'tasks',
        'queries',
        'promises',
        'drafts',
        'submissions',
        'files',
        'people',
        'aims',
      ].map((store) => [store, new Map()]),
    ),
  } as unknown as AssignmentRecordMaps;
}

function view(maps: AssignmentRecordMaps): AssignmentView {
  const found = viewOf(recordsIn(maps), 'a', AT);
  if (found === null) throw new Error('no view');
  return found;
}

/** One course with so many assignments that were marked. */
function manyAssignments(count: number): AssignmentRecordMaps {
  const one = withRemarks(0);
  const ids = Array.from({ length: count }, (_, n) => `a${n}`);
  return {
    ...one,
    courses: asRecord([exampleCourse({ scheme: 'points' })]),
    assignments: asRecord(ids.map((id) => exampleAssignment({ id }))),
    attempts: asRecord(ids.map((id) => exampleAttempt({ id: `${id}-1`, assignmentId: id }))),
    markings: asRecord(
      ids.map((id) =>
        exampleMarking({
          id: `${id}-m`,
          assignmentId: id,
          attemptId: `${id}-1`,
          score: '30',
        }),
      ),
    ),
  } as unknown as AssignmentRecordMaps;
}

const rubric = exampleRubric(
  Array.from({ length: 8 }, (_, n) => ({
    title: sentence(n),
    description: sentence(n + 100),
    possible: '5',
  })),
);

type Work = () => unknown;
/** For a size, what is measured; what it works on is made before. */
type Case = readonly [name: string, size: number, make: (size: number) => Work | Promise<Work>];

const readers: readonly Case[] = [
  ['Word, paragraphs with comments and changes', 300, (n) => reading(docx(n))],
  ['OpenDocument, paragraphs with annotations', 300, (n) => reading(odt(n))],
  ['flat OpenDocument', 300, (n) => reading(fodt(n))],
  ['PDF, pages with 7 remarks each', 6, async (n) => reading(await largePdf(n, 7 * n))],
  ['plain text, in one line', 2_000, (n) => reading(strToU8(sentences(n).join(' ')))],
  ['plain text, line by line', 2_000, (n) => reading(strToU8(sentences(n).join('\n\n')))],
  ['posts with comments', 300, (n) => reading(posts(n))],
  [
    'Web Annotations onto a text',
    200,
    async (n) => {
      const bytes = strToU8(sentences(n).join('\n\n'));
      const paper = await readPaper(bytes, null);
      const remarks = annotations(n);
      return () => readRemarksOnto(remarks, { bytes, paper }, null);
    },
  ],
  ['XFDF, annotations', 500, (n) => work(xfdf(n), readXfdf)],
  ['QTI results, questions', 60, (n) => reading(quiz(n))],
  ['WebVTT, cues', 2_000, (n) => work(vtt(n), readVtt)],
  ['CSV of scores, rows', 1_000, (n) => work(csv(n), (bytes) => readGrades([{ name: 'g.csv', bytes }]))],
  [
    'tables of a page, a rubric in one',
    500,
    (n) => work(html(n), (text) => readHtmlTables(text).map((grid) => rubricFromTable(grid, 'Report'))),
  ],
  ['tables of a Word file', 1_500, (n) => work(docx(n), readDocxTables)],
  ['OneRoster, results', 500, (n) => work(gradebook(n), readBook)],
  ['course as JSON', 500, (n) => work(courseJson(n), readCourse)],
];

const places: readonly Case[] = [
  ['an assignment as all places see it, remarks', 500, (n) => work(withRemarks(n), view)],
  [
    'Standing, assignments of a course',
    50,
    (n) => {
      const records = recordsIn(manyAssignments(n));
      return () => standingOf(records, 'c', (id) => viewOf(records, id, AT));
    },
  ],
  [
    'Read, words found in a text',
    1_000,
    (n) => {
      const text = sentences(n).join('\n');
      return () => placesOfWords(foldedText(text), 'the water had');
    },
  ],
  [
    'Rubric, links suggested for remarks',
    300,
    (n) => {
      const remarks = sentences(n);
      return () => {
        const suggest = criterionSuggester(rubric, []);
        return remarks.map((text) => suggest(exampleRemark({ text })));
      };
    },
  ],
  [
    'Revise, passages followed',
    300,
    (n) => {
      const [older, newer] = [paperWith(n), editedPaper(n)];
      const passages = older.starts.map((from) => ({ from, to: from + 20 }));
      return () => followPassages(older, newer, passages);
    },
  ],
  [
    'Check, two texts compared',
    500,
    (n) => {
      const [older, newer] = [paperWith(n), editedPaper(n)];
      return () => {
        const words = newVocabulary();
        return compareForReading(differenceOf(wordsOf(older.text, words), wordsOf(newer.text, words)));
      };
    },
  ],
  [
    'taking in, papers that a file may belong to',
    20,
    (n) => {
      const text = sentences(200).join(' ');
      const among = Array.from({ length: n }, (_, i) => ({
        id: String(i),
        names: [`paper ${i}`],
        texts: [
          sentences(200)
            .slice(i % 50)
            .join(' '),
        ],
      }));
      return () => likelyAssignment({ name: 'paper.pdf', title: '', text }, among);
    },
  ],
];

function reading(bytes: Uint8Array): Work {
  return () => readPaper(bytes, null);
}
function work<T>(on: T, how: (on: T) => unknown): Work {
  return () => how(on);
}

const RUNS = 9;

/** The least time of each of two works over runs in turn: what else the machine does only adds. */
async function leastMs(works: readonly [Work, Work]): Promise<[number, number]> {
  const least: [number, number] = [Infinity, Infinity];
  for (let run = -1; run < RUNS; run++)
    for (const [i, doing] of works.entries()) {
      const startedAt = performance.now();
      await doing();
      if (run >= 0) least[i] = Math.min(least[i], performance.now() - startedAt);
    }
  return least;
}

console.log(`B-growth  ten times the input; bar ${MOST} × the time`);
let over = 0;
/** `node dist/server/bench-growth.js Word` runs the rows with that word alone. */
const only = process.argv.at(2) ?? '';
for (const [name, size, make] of [...readers, ...places]) {
  if (!name.includes(only)) continue;
  const [one, ten] = await leastMs([await make(size), await make(size * 10)]);
  if (ten > MOST * one) over++;
  console.log(
    row(name, { one, ten, ratio: `${(ten / one).toFixed(1)} ×${ten > MOST * one ? '  OVER' : ''}` }),
  );
}
console.log(`    ${over} over the bar`);
