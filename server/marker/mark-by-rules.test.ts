import { createCanvas, loadImage } from '@napi-rs/canvas';
import { PDFDocument } from '@cantoo/pdf-lib';
import { mkdtempSync, rmSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { buildDesk } from '#demo/build-desk.ts';
import type { FileFact, Marking } from '#core/model/facts.ts';
import type { HandingIn } from '#formats/desk/handing-in.ts';
import { writeDraftDocx } from '#formats/docx/write-draft.ts';
import { hashOf } from '#formats/hash.ts';
import { readDiscussion } from '#formats/posts/read-posts.ts';
import { readPaper } from '#formats/read-paper.ts';
import { readRemarksOnto } from '#formats/place-remarks.ts';
import draftFeedback from '#demo/feedback/policy-brief-draft.json' with { type: 'json' };
import draftText from '#demo/papers/policy-brief-draft.md?raw';
import { createDesk, openDesk } from '../desk/desk-folder.ts';
import { withFact } from '../desk/desk-state.ts';
import { takeAttempt } from '../desk/take-attempt.ts';
import { markPending } from './mark-pending.ts';

const content = await buildDesk('2026-11-02', [
  'policy-brief',
  'policy-brief-draft',
  'core-log',
  'seminar-post-1',
  'levels-lab',
]);
const NOW = Date.parse('2026-11-03T10:00:00Z');
const LATER = NOW + 20_000;

let folder: string;
let desk: ReturnType<typeof openDesk>;
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'juncture-marker-'));
  createDesk(folder, content, 'RIGHT-CODES');
  desk = openDesk(folder);
});
afterEach(() => rmSync(folder, { recursive: true, force: true }));

const NOTHING: Omit<HandingIn, 'kind'> = { note: '', files: [], post: null, items: {} };

/** Hands in and waits for the marker. */
async function marked(assignmentId: string, asked: Partial<HandingIn> & Pick<HandingIn, 'kind'>) {
  const whole = { ...NOTHING, ...asked };
  const key = await hashOf(new TextEncoder().encode(JSON.stringify(whole)));
  const taken = await takeAttempt(desk, NOW, { assignmentId, key, asked: whole });
  if (taken.kind === 'refused') throw new Error(taken.why);
  expect(await markPending(desk, NOW + 1000, new Set())).toBe(0);
  expect(await markPending(desk, LATER, new Set())).toBe(1);
  const marking = desk.state.facts.flatMap((fact) =>
    fact.kind === 'marking' && fact.value.attemptId === taken.attempt.id ? [fact.value] : [],
  );
  expect(marking).toHaveLength(1);
  return { attempt: taken.attempt, marking: marking[0] };
}

async function sent(name: string, mediaType: string, bytes: Uint8Array<ArrayBuffer>) {
  const hash = await hashOf(bytes);
  desk.putFile(hash, bytes);
  return { role: 'paper' as const, name, mediaType, size: bytes.length, hash };
}

function allowAttempts(work: string, attemptsAllowed: number) {
  const known = desk.state.facts.flatMap((f) => (f.kind === 'assignment' ? [f.value] : []));
  const value = known.find(({ id }) => String(id) === work);
  if (value === undefined) throw new Error(`no ${work}`);
  desk.update((state) => withFact(state, { kind: 'assignment', value: { ...value, attemptsAllowed } }));
}

const bytesOf = async ({ hash }: FileFact) =>
  new Uint8Array(await readFile(desk.pathOfFile(hash) ?? 'missing'));
const pointsOf = ({ criteria }: Marking) =>
  Object.fromEntries(criteria.map(({ criterionId, points }) => [criterionId, points]));

describe('a final of which nothing was marked before', () => {
  const paragraphs = draftText.split(/\n\n+/).map((text) => text.replace(/^#+ /, ''));
  const DOCX = 'application/vnd.openxmlformats-officedocument.wordprocessingml.document';
  async function brief(change: (text: string) => string) {
    const blocks = paragraphs.map((text) => ({
      kind: 'paragraph' as const,
      level: 0,
      runs: [{ text: change(text), bold: false, italic: false }],
    }));
    const file = await sent('Brief.docx', DOCX, await writeDraftDocx(blocks, 'Brief', new Map()));
    return marked('policy-brief', { kind: 'paper', files: [file] });
  }
  const REVISED: readonly (readonly [string, string])[] = [
    [
      'but only nine of them use it',
      'but only nine of them use it, as the list of the parish shows (Ashwell Parish 2024)',
    ],
    [
      'A right of common belongs to the dwelling',
      'Clause 14 of the award says that a right of common belongs to the dwelling',
    ],
    [
      'may do with the land what it likes as long as enough grass is left for those who hold a right',
      'may not change the land so that those who hold a right cannot use it, however much grass is left',
    ],
    [
      'were in better condition',
      'lost 12 per cent of their grass in ten years, where the others lost a third',
    ],
    [
      'Graziers in Tolver set up a council like this and it works very well.',
      'Graziers in Tolver set up a council like this six years ago; it has met eleven times and settled where the fence of the lower meadow stands.',
    ],
    [
      'If all this is done there will be no more conflict on the common.',
      'People will go on to disagree about the common, and the council will be a place for it.',
    ],
    [
      'The parish should call a meeting of everyone who holds a right.',
      'By the end of January the parish should call a meeting of everyone who holds a right.',
    ],
    [
      'Ostrander, V. (2014) Eleven commons in the hills.',
      'Ostrander, V. (2014) Eleven commons in the hills. Halland, K. (2016) Speaking for the bog. Odell, P. (2019) Who leaves and who stays. Ashwell Parish (2024) List of rights.',
    ],
  ];
  const revised = (text: string) => REVISED.reduce((t, [old, anew]) => t.replace(old, anew), text);

  it('gets more for what was asked for than the draft would have, and remarks where something is missing', async () => {
    const { marking, attempt } = await brief((text) => text);
    expect(Number(marking.score)).toBeLessThan(18);
    const [remarks] = marking.files;
    expect(remarks.aboutHash).toBe(attempt.files[0].hash);
    const paper = await bytesOf(attempt.files[0]);
    const onto = await readPaper(paper, null);
    const marks = await readRemarksOnto(await bytesOf(remarks), { bytes: paper, paper: onto }, null);
    expect(marks.length).toBe(remarks.announced.passage);
    const about = (part: string) =>
      marks
        .filter(({ anchor }) => anchor && onto.paper.text.slice(anchor.from, anchor.to).includes(part))
        .map(({ text }) => text);
    expect(about('what it likes')).toEqual([expect.stringContaining('Still not the law')]);
    expect(about('no more conflict')).toEqual([expect.stringContaining('Promise less')]);
  });

  it('gets nearly all for an honest final', async () => {
    const { marking } = await brief(revised);
    expect(pointsOf(marking)).toEqual({
      'brief-question': '6',
      'brief-law': '10',
      'brief-weighing': '8',
      'brief-advice': '6',
    });
    expect(marking.score).toBe('30');
    expect(marking.criteria.map(({ level }) => level)).toEqual(Array(4).fill('Excellent'));
  });

  it.each([
    ['words scrambled', (text: string) => text.split(' ').sort().join(' ')],
    ['everything twice', (text: string) => `${revised(text)} ${revised(text)}`],
    [
      'a list of what is looked for',
      () =>
        'Clause 14, clause 3, owner may not right, Tolver years meetings, January parish, (2014), (2015), (2016).',
    ],
  ])('wins nothing with %s', async (_, change) => {
    const { marking } = await brief(change);
    expect(Number(marking.score)).toBeLessThanOrEqual(12);
  });

  it('wins no more than the draft where what was said of it is pasted in', async () => {
    const pasted = (text: string) =>
      draftFeedback.remarks.reduce((t, { quote, text: said }) => t.replace(quote, `${quote} ${said}`), text);
    allowAttempts('policy-brief', 2);
    const { marking } = await brief((text) => text);
    expect(Number((await brief(pasted)).marking.score)).toBeLessThanOrEqual(Number(marking.score));
  });

  it('says so where it is too long', async () => {
    const { marking } = await brief(
      (text) => `${text} ${'We walked to the bog and back again. '.repeat(20)}`,
    );
    expect(marking.overall).toMatch(/1200|1,200/);
  });
});

describe('a drawing', async () => {
  const before = content.facts.flatMap((fact) =>
    fact.kind === 'marking' && fact.value.assignmentId === 'core-log' ? fact.value.files : [],
  )[0];
  const whole = await loadImage(Buffer.from(content.files.get(before.hash) ?? []));
  type Pen = ReturnType<ReturnType<typeof createCanvas>['getContext']>;
  function picture(draw: (pen: Pen) => void, size: readonly [number, number] = [900, 1240]) {
    const canvas = createCanvas(...size);
    const pen = canvas.getContext('2d');
    pen.scale(size[0] / 900, size[1] / 1240);
    pen.drawImage(whole, 0, 0, 900, 1240);
    draw(pen);
    return new Uint8Array(canvas.toBuffer('image/png'));
  }
  /** The scale drawn evenly: other figures from 70 down. */
  const newScale = (pen: Pen) => {
    pen.fillStyle = '#fbf8ef';
    pen.fillRect(150, 840, 78, 260);
    pen.fillStyle = '#111';
    pen.font = '22px sans-serif';
    for (const [at, y] of [
      [70, 864],
      [80, 900],
      [90, 970],
      [95, 1070],
    ])
      pen.fillText(String(at), 180, y);
  };
  const bar = (pen: Pen) => {
    pen.fillStyle = '#111';
    pen.fillRect(60, 92, 200, 8);
  };
  const drawnAnew = (pen: Pen) => {
    newScale(pen);
    bar(pen);
  };
  const ofDrawing = async (bytes: Uint8Array<ArrayBuffer>, name = 'New log.png', mediaType = 'image/png') =>
    marked('core-log', { kind: 'files', files: [await sent(name, mediaType, bytes)] });

  it('wins what is drawn anew where it was remarked on, and is told of the rest in its place', async () => {
    const { marking, attempt } = await ofDrawing(picture(drawnAnew));
    expect(pointsOf(marking)['core-scale']).toBe('6');
    expect(pointsOf(marking)['core-horizons']).toBe('7');
    const bytes = await bytesOf(attempt.files[0]);
    const there = { bytes, paper: await readPaper(bytes, null) };
    const marks = await readRemarksOnto(await bytesOf(marking.files[0]), there, null);
    expect(marks.map(({ text }) => text)).toContain('sc. Even now, from top to bottom.');
    expect(marks.map(({ text }) => text)).toContain('bd. Drawn as sharp as before: was it?');
    expect(marking.files[0].announced.region).toBe(marks.length);
  });

  it('wins the same at another size, and as a page of a PDF', async () => {
    const large = await ofDrawing(picture(drawnAnew, [1800, 2480]));
    expect(large.marking.score).toBe('17.5');
  });

  it('is looked at as a page of a PDF too', async () => {
    const pdf = await PDFDocument.create();
    const image = await pdf.embedPng(picture(drawnAnew));
    pdf.addPage([450, 620]).drawImage(image, { x: 0, y: 0, width: 450, height: 620 });
    const { marking } = await ofDrawing(new Uint8Array(await pdf.save()), 'New log.pdf', 'application/pdf');
    expect(marking.score).toBe('17.5');
    expect(marking.files).toEqual([]);
  });

  it('wins the same where it lies elsewhere on its sheet, and no more', async () => {
    const elsewhere = picture((pen) => {
      pen.fillStyle = '#f3efe2';
      pen.fillRect(0, 0, 900, 1240);
      const copy = createCanvas(900, 1240);
      copy.getContext('2d').drawImage(whole, 0, 0);
      drawnAnew(copy.getContext('2d'));
      pen.drawImage(copy, 60, 34, 783, 1079);
    });
    const { marking } = await ofDrawing(elsewhere);
    expect(marking.score).toBe('17.5');
  });

  it('wins nothing where the same one is scanned anew, a little larger and aside', async () => {
    const aside = picture((pen) => {
      pen.fillStyle = '#fffdf6';
      pen.fillRect(0, 0, 900, 1240);
      pen.drawImage(whole, 24, 15, 855, 1178);
    });
    expect((await ofDrawing(aside)).marking.score).toBe(BASE);
  });

  const BASE = '13.5';
  it('wins nothing where it is the same', async () => {
    expect((await ofDrawing(picture(() => undefined))).marking.score).toBe(BASE);
  });

  it('wins nothing where what was there is only rubbed out', async () => {
    const rubbed = picture((pen) => {
      pen.fillStyle = '#fbf8ef';
      pen.fillRect(455, 185, 330, 60);
      pen.fillRect(455, 515, 380, 60);
    });
    expect((await ofDrawing(rubbed)).marking.score).toBe(BASE);
  });

  it('wins nothing as an empty sheet', async () => {
    const empty = picture((pen) => {
      pen.fillStyle = 'white';
      pen.fillRect(0, 0, 900, 1240);
    });
    const none = await ofDrawing(empty);
    expect([none.marking.score, none.marking.overall]).toEqual(['0', expect.stringContaining('no drawing')]);
  });

  it('wins nothing as scribble', async () => {
    const scribble = picture((pen) => {
      pen.fillStyle = '#111';
      for (let n = 0; n < 6000; n++) pen.fillRect((n * 7919) % 900, (n * 104_729) % 1240, 9, 9);
    });
    expect((await ofDrawing(scribble)).marking.overall).toMatch(/not the log|no drawing/);
  });

  it('is answered where the file can’t be opened', async () => {
    const broken = new Uint8Array([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a, 1, 2, 3]);
    expect((await ofDrawing(broken)).marking.overall).toContain('would not open');
  });
});

describe('a post', () => {
  const post = (text: string, answers: string | null = 'p1-maren') =>
    marked('seminar-post-1', { kind: 'posts', post: { text, answers, betters: 'p1-ines' } });
  const GOOD =
    'Maren writes that a common belongs to nobody and is therefore overused. The common at Ashwell belongs to the trust, and thirty-one dwellings have a right to graze on it. Land that everybody may use is something else, for example a public road. Lunn (p. 12) says that the mistake comes from a story about a pasture where nobody talks. Ostrander (p. 88) found councils that had talked for two hundred years. I think that talking is what matters, because a rule that nobody has talked about binds nobody.';

  it('wins readings, pages, reasons and another’s point, and comes back with the thread', async () => {
    const { marking, attempt } = await post(GOOD);
    expect(marking.score).toBe('10');
    const { posts } = readDiscussion(await bytesOf(marking.files[0]));
    expect(posts.map(({ id }) => id)).toEqual(['p1-maren', 'p1-ines', 'p1-lena', attempt.id]);
    expect(posts[3]).toMatchObject({ answers: 'p1-maren', text: GOOD, author: { role: 'self' } });
    expect(posts[3].comments.length).toBeGreaterThan(0);
    for (const { quote } of posts[3].comments) expect(GOOD).toContain(quote);
    expect(marking.files[0].announced.post).toBe(posts[3].comments.length);
  });

  it('is told what it lacks', async () => {
    const { marking } = await post(
      'The common at Ashwell belongs to the trust. Land that everybody may use is something different, for example the sea. I think this is the most important thing.',
      null,
    );
    expect(marking.score).toBe('4');
    expect(marking.overall).toContain('The second reading is still missing.');
    expect(marking.overall).toContain('Nobody else’s point is taken up.');
    const { posts } = readDiscussion(await bytesOf(marking.files[0]));
    expect(posts[3].comments.map(({ text }) => text)).toContain('The sea has its rules. A better example?');
  });

  it.each([
    [
      'what other students wrote',
      'If a bog could go to law, who would speak for it? I would say the people who measure it, since they know how it is. Both of you leave out the reeve. Somebody has to keep the list. In our village nobody picks berries before the first of August.',
    ],
    ['names without a sentence', 'Lunn p. 12 Ostrander p. 88 matters because road.'],
    [
      'the remarks copied back',
      'Page number. A reader who wants to check you has two hundred pages to go through. Why? You stop where the thought begins. In your next post bring the second reading in as well.',
    ],
  ])('wins nothing with %s', async (_, text) => {
    expect(Number((await post(text)).marking.score)).toBeLessThanOrEqual(4);
  });
});

describe('an activity by items', () => {
  const GOOD = {
    'lev-rim': 'N1 310 mm, N2 280 mm, N3 300 mm, N4 350 mm, N5 270 mm, N6 330 mm',
    'lev-depth': 'The water is 62 mm below the peat.',
    'lev-rounds':
      'Up to 3 mm, because the tape can be read to 1 mm and the water clings to it. Beyond that I read again.',
    'lev-still':
      'It may be blocked, or the clay near the ditch holds it down. I would pour in a jug of water and compare how fast it sinks.',
  };
  const items = (given: Readonly<Record<string, string>>) =>
    marked('levels-lab', { kind: 'items', items: given });

  it('is marked item by item', async () => {
    const { marking } = await items(GOOD);
    expect(pointsOf(marking)).toEqual({
      'lev-rim': '5',
      'lev-depth': '5',
      'lev-rounds': '5',
      'lev-still': '5',
    });
    expect(marking.score).toBe('20');
  });

  it('is told what an item lacks, and wins nothing for one left out', async () => {
    const { marking } = await items({ ...GOOD, 'lev-rounds': 'They should be the same.', 'lev-depth': '' });
    expect(pointsOf(marking)).toMatchObject({ 'lev-rounds': '1', 'lev-depth': '1' });
    const comment = marking.criteria.find(({ criterionId }) => criterionId === 'lev-rounds')?.comment;
    expect(comment).toBe('How much is too much, and why that much?');
  });

  it('keeps what an item had when it is not answered again', async () => {
    const { marking } = await items({ 'lev-depth': 'The water is 62 mm below the peat.' });
    expect(pointsOf(marking)).toEqual({
      'lev-rim': '3',
      'lev-depth': '5',
      'lev-rounds': '1',
      'lev-still': '2',
    });
    allowAttempts('levels-lab', 3);
    const again = await items({ 'lev-rounds': GOOD['lev-rounds'] });
    expect(pointsOf(again.marking)).toMatchObject({ 'lev-depth': '5', 'lev-rounds': '5' });
  });

  it('wins nothing with a list of words', async () => {
    const { marking } = await items({
      'lev-rounds': '3 mm because',
      'lev-still': 'ditch clay test pour compare slope seep dam pipe outlet',
    });
    expect(pointsOf(marking)).toMatchObject({ 'lev-rounds': '1', 'lev-still': '2' });
  });
});
