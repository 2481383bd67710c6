import { beforeAll, describe, expect, it } from 'vitest';
import { locateQuoteSurely } from '#core/anchors/locate.ts';
import { squeeze } from '#core/text/squeeze.ts';
import { channels, type Channel } from '#core/model/channels.ts';
import type { FileFact, Marking } from '#core/model/facts.ts';
import { paperOf } from '#core/paper/paper.ts';
import { stances, type Stance } from '#core/model/work.ts';
import { readdirSync, readFileSync } from 'node:fs';
import { decodeModel } from '#core/saying/model.ts';
import { says } from '#core/saying/says.ts';
import { CALLS_FOR_CHANGE } from '#core/saying/saying.ts';
import { nearDuplicates } from '#core/saying/training/near-duplicates.ts';
import { readVoice, textOf } from '#core/saying/training/voices.ts';
import { normaliseText } from '#core/text/normalise.ts';
import { exactOf, type Mark } from '#formats/marked-paper.ts';
import { readMarkedPdf } from '#formats/pdf/read-marked-pdf.ts';
import { readRemarksOnto } from '#formats/place-remarks.ts';
import { readPaper } from '#formats/read-paper.ts';
import { readVtt } from '#formats/sound/read-vtt.ts';
import type { DeskContent } from '#server/desk/desk-state.ts';
import { buildDesk } from './build-desk.ts';
import { blocksOfMarkdown } from './markdown.ts';
import {
  readDiscussions,
  readFeedback,
  readMatches,
  readPaperText,
  readScenario,
  readSources,
  type FeedbackGiven,
} from './scenario.ts';

let desk: DeskContent;
beforeAll(async () => {
  desk = await buildDesk('2026-11-02');
});

const markings = () => desk.facts.flatMap((fact) => (fact.kind === 'marking' ? [fact.value] : []));
const returned = () => markings().flatMap((marking) => marking.files.map((fact) => ({ marking, fact })));
const bytesOf = ({ hash }: FileFact) => {
  const bytes = desk.files.get(hash);
  if (bytes === undefined) throw new Error(`no file ${hash}`);
  return new Uint8Array(bytes);
};

async function marksIn({ fact, marking }: { fact: FileFact; marking: Marking }): Promise<readonly Mark[]> {
  const about =
    fact.aboutHash === null
      ? null
      : [...marking.files, ...desk.facts.flatMap((f) => (f.kind === 'attempt' ? f.value.files : []))].find(
          ({ hash }) => hash === fact.aboutHash,
        );
  switch (fact.role) {
    case 'marked':
    case 'quiz':
    case 'posts':
      return (await readPaper(bytesOf(fact), null)).marks;
    case 'remarks':
    case 'report': {
      if (about == null) throw new Error(`${fact.name} is about nothing`);
      const bytes = bytesOf(about);
      return readRemarksOnto(bytesOf(fact), { bytes, paper: await readPaper(bytes, null) }, null);
    }
    case 'recording':
    case 'transcript':
    case 'paper':
    case 'brief':
    case 'response':
      return [];
  }
}

const feedbackNames = [
  'skarn-moss-remarks',
  'report-marks',
  'policy-brief-draft',
  'landscape-essay',
  'rain-diary',
  'falling-head',
  'core-log',
];

describe('the demo', () => {
  it('is made of the same bytes for the same day zero, and of others for another', async () => {
    const hashes = async (day: string) => [...(await buildDesk(day)).files.keys()];
    const own = [...desk.files.keys()];
    expect(await hashes('2026-11-02')).toEqual(own);
    expect((await hashes('2026-11-03'))[0]).not.toBe(own[0]);
  });

  it('has the size it should: courses, terms, assignments, channels', () => {
    const { courses, assignments } = readScenario();
    expect(courses.filter(({ term }) => term === 'autumn')).toHaveLength(3);
    expect(courses.filter(({ term }) => term === 'spring')).toHaveLength(2);
    expect(assignments.length).toBeGreaterThanOrEqual(18);
    expect(new Set(markings().map(({ assignmentId }) => assignmentId)).size).toBeGreaterThanOrEqual(10);
    const policies = new Set(assignments.map(({ policy }) => policy?.kind ?? 'latest'));
    expect([...policies].sort()).toEqual(['best', 'capped', 'latest', 'mean', 'recover']);
  });

  it('has rubrics of every kind: five criteria of four levels, ranges, one unscored, one that doesn’t add up', () => {
    const rubrics = desk.rubrics;
    expect(
      rubrics.some(
        ({ criteria }) => criteria.length === 5 && criteria.every(({ levels }) => levels.length === 4),
      ),
    ).toBe(true);
    const levels = rubrics.flatMap(({ criteria }) => criteria.flatMap((criterion) => criterion.levels));
    expect(levels.some(({ pointsFrom }) => pointsFrom !== null)).toBe(true);
    expect(rubrics.some(({ criteria }) => criteria.some(({ possible }) => possible === null))).toBe(true);
    const core = markings().find(({ assignmentId }) => assignmentId === 'core-log');
    const sum = core?.criteria.reduce((total, { points }) => total + Number(points), 0);
    expect([sum, core?.score]).toEqual([13, '13.5']);
  });

  it('has group work, results that are no points, rules of a course, and work that is late', () => {
    const { courses, assignments } = readScenario();
    expect(markings().some(({ groupScore }) => groupScore !== null)).toBe(true);
    expect(markings().flatMap(({ result }) => result ?? [])).toEqual(
      expect.arrayContaining(['B+', 'Complete']),
    );
    expect(courses.some(({ policy }) => policy !== null)).toBe(true);
    expect(courses.some(({ late }) => late !== null)).toBe(true);
    expect(assignments.some(({ policy }) => policy === null)).toBe(true);
  });

  it('holds at least 150 remarks, over every channel, as many as each file announces', async () => {
    const counts = new Map<Channel, number>();
    const add = (channel: Channel, count: number) => counts.set(channel, (counts.get(channel) ?? 0) + count);
    const seen = new Set<string>();
    for (const { fact, marking } of returned()) {
      if (seen.has(fact.hash)) continue;
      seen.add(fact.hash);
      const marks =
        fact.role === 'report' && Object.keys(fact.announced).length === 0
          ? []
          : await marksIn({ fact, marking });
      const announced = Object.values(fact.announced).reduce((sum, n) => sum + n, 0);
      if (fact.role === 'recording') add('recording', 1);
      else {
        expect([fact.name, marks.length]).toEqual([fact.name, announced]);
        for (const channel of Object.keys(fact.announced) as Channel[]) add(channel, announced);
      }
    }
    const first = new Map(markings().map((marking) => [marking.attemptId, marking]));
    for (const { overall, criteria } of first.values()) {
      add('overall', Number(overall !== ''));
      add('criterion', criteria.filter(({ comment }) => comment !== '').length);
    }
    expect([...counts.keys()].sort()).toEqual([...channels].sort());
    const all = [...counts.values()].reduce((sum, n) => sum + n, 0);
    console.log(
      `remarks of the demo by channel: ${JSON.stringify(Object.fromEntries(counts))}, ${all} in all`,
    );
    expect(all).toBeGreaterThanOrEqual(150);
  });

  it('puts every remark on its very words, its box or its question', async () => {
    for (const one of returned()) {
      if (one.fact.role === 'report' && Object.keys(one.fact.announced).length === 0) continue;
      for (const mark of await marksIn(one))
        expect([one.fact.name, mark.text, mark.targets.some(({ kind }) => kind === 'unplaced')]).toEqual([
          one.fact.name,
          mark.text,
          false,
        ]);
    }
  });

  it('has forty sources, and every match of an originality report really stands in one', () => {
    const plain = (text: string) =>
      text
        .toLowerCase()
        .match(/[\p{L}\p{N}]+/gu)
        ?.join(' ') ?? '';
    const sources = new Map(readSources().map(({ id, text }) => [id, plain(text)]));
    expect(sources.size).toBe(40);
    expect(new Set(sources.values()).size).toBe(40);
    const matches = Object.values(readMatches()).flat();
    expect(matches.filter(({ from }) => from !== undefined).length).toBeGreaterThanOrEqual(9);
    for (const { id, quote, from } of matches)
      if (from !== undefined) expect([id, sources.get(from)?.includes(plain(quote))]).toEqual([id, true]);
  });

  it('has transcripts for what is spoken', () => {
    const spoken = returned().filter(({ fact }) => fact.role === 'transcript');
    expect(spoken).toHaveLength(2);
    for (const { fact } of spoken) expect(readVtt(bytesOf(fact)).length).toBeGreaterThan(3);
  });

  it('writes no remark twice, but what is doubled on purpose', () => {
    const words = (text: string) =>
      new Set(
        normaliseText(text)
          .toLowerCase()
          .match(/\p{L}{3,}/gu) ?? [],
      );
    const texts = [
      ...feedbackNames.flatMap((name) => {
        const { remarks, regions, peer } = readFeedback(name);
        return [...remarks, ...regions, ...(peer?.remarks ?? [])].map(({ text }) => text);
      }),
      ...Object.values(readDiscussions()).flatMap(({ posts }) =>
        posts.flatMap(({ comments }) => comments.map(({ text }) => text)),
      ),
      ...readScenario().assignments.flatMap(({ attempts }) =>
        attempts.flatMap((attempt) =>
          attempt.markings.flatMap(({ overall, criteria }) => [overall, ...criteria.map((c) => c.comment)]),
        ),
      ),
    ].filter((text) => text !== '');
    for (const [i, text] of texts.entries())
      for (const other of texts.slice(i + 1)) {
        const [a, b] = [words(text), words(other)];
        const both = [...a].filter((word) => b.has(word)).length;
        const share = both / Math.max(1, Math.min(a.size, b.size));
        expect([text, other, share < 0.7 || a.size < 4 || b.size < 4]).toEqual([text, other, true]);
      }
  });
});

describe('the demo’s marked report', () => {
  const report = async () => {
    const fact = returned().find(({ fact: { name } }) => name === 'Skarn Moss report, marked.pdf');
    if (fact === undefined) throw new Error('no report');
    return readMarkedPdf(bytesOf(fact.fact), null);
  };

  it('reads back to the text it was set from, headings and paragraphs kept', async () => {
    const pdf = await report();
    expect(pdf.paper.blocks).toEqual(paperOf(blocksOfMarkdown(readPaperText('skarn-moss-report'))).blocks);
  });

  it('holds every remark with its words, in its place', async () => {
    const pdf = await report();
    const given = ['skarn-moss-remarks', 'report-marks'].flatMap((name) => readFeedback(name).remarks);
    expect(pdf.marks).toHaveLength(given.length);
    expect(pdf.unknownKinds).toEqual([]);
    for (const remark of given) {
      const mark = pdf.marks.find((m) => m.sourceId === remark.id);
      expect([remark.id, mark?.text]).toEqual([remark.id, remark.text]);
      expect(mark?.author).toBe('Dr Aune Keld');
      expect(mark?.subject ?? undefined).toBe(remark.criterion);
      if (remark.quote !== undefined) {
        expect(mark === undefined ? null : exactOf(mark)).toBe(remark.quote);
        expect(mark?.anchor?.exactly).toBe(true);
      } else if (remark.beside !== undefined) {
        expect(mark?.targets[0].kind).toBe('point');
        const near = mark?.anchor ? pdf.paper.text.slice(mark.anchor.from, mark.anchor.to) : '';
        expect(near).toContain(remark.beside);
      }
    }
  });

  it('has every kind of mark, marks without words, and one note about several circles', async () => {
    const pdf = await report();
    const kinds = new Set(pdf.marks.map((mark) => mark.kind));
    for (const kind of [
      'highlight',
      'underline',
      'squiggly',
      'strikeout',
      'text',
      'freetext',
      'ink',
      'circle',
    ])
      expect([...kinds]).toContain(kind);
    expect(pdf.marks.filter(({ text }) => text === '').length).toBeGreaterThanOrEqual(3);
    expect(pdf.marks.find(({ kind }) => kind === 'circle')?.targets).toHaveLength(3);
    expect(new Set(pdf.marks.map(({ color }) => color)).size).toBeGreaterThanOrEqual(5);
  });
});

describe('the demo’s draft of a brief', () => {
  it('is a Word file with comments, answers and changes that read as they were written', async () => {
    const found = returned().find(({ fact }) => fact.name === 'Brief, draft, with remarks.docx');
    if (found === undefined) throw new Error('no brief');
    const { marks, paper } = await readPaper(bytesOf(found.fact), null);
    const given = readFeedback('policy-brief-draft');
    for (const remark of given.remarks) {
      const mark = marks.find(({ text }) => text === remark.text);
      expect(mark && mark.replies.length > 0).toBe(remark.replies !== undefined);
    }
    expect(marks.filter(({ change }) => change !== null).map(({ kind }) => kind)).toContain('insertion');
    const found2 = locateQuoteSurely(
      squeeze(paper.text),
      { exact: 'as much as they can', prefix: '', suffix: '' },
      null,
    );
    expect(found2).not.toBeNull();
  });
});

describe('what the demo’s remarks say', () => {
  const model = decodeModel(
    new Uint8Array(readFileSync(new URL('../core/saying/saying.model', import.meta.url))),
  );
  const said = () =>
    feedbackNames
      .flatMap((name) => {
        const { remarks, regions, peer }: FeedbackGiven = readFeedback(name);
        return [...remarks, ...(peer?.remarks ?? []), ...regions.map((one) => ({ ...one, kind: 'region' }))];
      })
      .concat(
        Object.values(readDiscussions()).flatMap(({ posts }) =>
          posts.flatMap(({ comments }) => comments.map((one) => ({ ...one, kind: 'post comment' }) as never)),
        ),
      )
      .filter(({ text }) => text !== '');

  it('is told by the model, which learnt from none of them', () => {
    const remarks = said().map(({ text, kind, says: labelled }) => ({
      labelled: labelled as Stance,
      found: says({ text, kind, change: null }, model),
    }));
    for (const { labelled } of remarks) expect(stances).toContain(labelled);
    const right = remarks.filter(({ labelled, found }) => labelled === found.stance).length;
    const calls = remarks.filter(
      ({ labelled, found }) => CALLS_FOR_CHANGE.has(labelled) === found.callsForChange,
    ).length;
    console.log(
      `of ${remarks.length} remarks of the demo ${right} are told exactly, ${calls} as to whether they call for a change`,
    );
    expect(right / remarks.length).toBeGreaterThan(0.5);
    expect(calls / remarks.length).toBeGreaterThan(0.7);
  });

  it('is nowhere nearly what the model learnt from', () => {
    const folder = new URL('../core/saying/training/voices/', import.meta.url);
    const learnt = readdirSync(folder)
      .filter((name) => name.endsWith('.txt'))
      .flatMap((name) => readVoice(name, readFileSync(new URL(name, folder), 'utf8')))
      // What few words say, many write: "Good point", "Source?".
      .filter((remark) => textOf(remark).split(' ').length > 3);
    const demo = said().map(({ text }) => ({ by: 'the demo', text }));
    const voices = learnt.map((remark) => ({ by: 'voices', text: textOf(remark) }));
    expect(nearDuplicates([...voices, ...demo])).toEqual([]);
  });
});
