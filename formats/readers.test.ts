import { describe, expect, it } from 'vitest';
import { exactOf, type Mark, type MarkReply } from './marked-paper.ts';
import { readMarkedDocx } from './docx/read-marked-docx.ts';
import { readMarkedFodt, readMarkedOdt } from './odt/read-marked-odt.ts';
import { readMarkedPdf } from './pdf/read-marked-pdf.ts';
import { readPaper } from './read-paper.ts';
import { readRemarksOnto } from './place-remarks.ts';
import { sample, truth, type TrueRemark } from './samples/sample.ts';

/** Files and their truth come from other programs (samples/README.md); nothing here was written by our own builder. */

const bare = (words: string | null) => (words === null ? null : words.replace(/\s+/g, ' ').trim());
const pageOf = ({ targets: [target] }: Mark) => ('page' in target ? target.page : null);
interface Told {
  readonly text?: string | undefined;
  readonly exact: string | null;
}
const byText = (x: Told, y: Told) =>
  `${x.text ?? ''} ${x.exact ?? ''}` < `${y.text ?? ''} ${y.exact ?? ''}` ? -1 : 1;

describe('a PDF', async () => {
  const known = truth('pdf-truth.json');
  const read = (mark: Mark): TrueRemark => ({
    kind: mark.kind,
    page: pageOf(mark) ?? 0,
    author: mark.author,
    created: mark.at,
    color: mark.kind === 'freetext' ? null : mark.color,
    exact: ['square', 'circle', 'polygon'].includes(mark.kind) ? null : bare(exactOf(mark)),
    text: mark.text,
  });

  it.each(['transects.pdf', 'transects-turned.pdf', 'transects-upside.pdf', 'sideways.pdf'])(
    '%s: every mark, each with its very words',
    async (name) => {
      const { marks } = await readMarkedPdf(sample(name), null);
      expect(marks.map(read).sort(byText)).toEqual(known[name].toSorted(byText));
    },
  );

  const kinds = await readMarkedPdf(sample('kinds.pdf'), null);
  const saying = (text: string) => kinds.marks.find((mark) => mark.text.startsWith(text));

  it('every kind of annotation, none of them twice', () => {
    const texts = new Map([['Cut.', 'Cut.\npaced the line']]);
    const expected = known['kinds.pdf'].map((remark) => ({
      ...remark,
      text:
        texts.get(remark.text ?? '') ??
        (remark.kind === 'text' && remark.text === '' ? 'Look here & there.\nTwice.' : remark.text),
    }));
    expect(kinds.marks.map(read).sort(byText)).toEqual(expected.sort(byText));
  });

  it('answers below what they answer, also hidden ones, and the last state', () => {
    const mark = saying('Which two?');
    expect(mark?.replies).toMatchObject([
      {
        author: 'Ines Tarrow',
        text: 'Planks 3 and 5.',
        at: '2026-03-05T10:00:00.000Z',
        replies: [{ text: 'Then say so.' }],
      },
    ]);
    expect(mark?.state).toBe('Completed');
    expect(saying('This one answers itself.')?.replies).toEqual([]);
  });

  it('the words in boxes and circles, and the paragraph beside a note', () => {
    expect(bare(exactOf(saying('Measured how often?') as Mark))).toBe('41 litres');
    expect(bare(exactOf(saying('All of them?') as Mark))).toBe('three millimetres');
    expect(bare(exactOf(saying('And plank 4?') as Mark))).toBe('plank 5');
    const note = saying('Cause before effect');
    const { from, to } = note?.anchor ?? { from: 0, to: 0 };
    expect(note?.anchor?.exactly).toBe(false);
    expect(kinds.paper.text.slice(from, to)).toContain('The planks had shrunk.');
  });

  it('what was grouped as one, the strokes of ink, the file that was attached, and what kind is not known', () => {
    expect(saying('Cut.')?.targets).toHaveLength(2);
    const ink = kinds.marks.find(({ kind }) => kind === 'ink')?.targets[0];
    expect(ink?.kind === 'point' ? ink.shape.map((stroke) => stroke.length) : null).toEqual([6, 4]);
    expect(kinds.attached.map(({ name, bytes }) => [name, new TextDecoder().decode(bytes)])).toEqual([
      ['leaks.csv', 'plank,litres\n3,41\n5,18\n'],
    ]);
    expect(kinds.unknownKinds).toEqual(['compass']);
  });

  it('comments that a word processor wrote out as notes', async () => {
    const { marks } = await readMarkedPdf(sample('dams-notes.pdf'), null);
    const comments = truth('writer-truth.json')['dams.odt'];
    expect(
      marks
        .map(({ kind, text, author }) => ({ kind, text, author: author.split(',')[0] }))
        .sort((x, y) => (x.text < y.text ? -1 : 1)),
    ).toEqual(
      comments
        .map(({ text, author }) => ({ kind: 'text', text, author }))
        .sort((x, y) => ((x.text ?? '') < (y.text ?? '') ? -1 : 1)),
    );
  });

  it('with a password, and says when that is wrong', async () => {
    for (const name of ['locked.pdf', 'locked-old.pdf']) {
      await expect(readMarkedPdf(sample(name), null)).rejects.toMatchObject({ reason: 'locked PDF' });
      await expect(readMarkedPdf(sample(name), null, { password: 'heath' })).rejects.toMatchObject({
        reason: 'wrong password',
      });
      const { marks } = await readMarkedPdf(sample(name), null, { password: 'peat' });
      expect(marks.map(({ text }) => text)).toEqual(['At which well?']);
    }
  });

  it('in columns, with words joined where a line cut them', async () => {
    const { paper } = await readMarkedPdf(sample('transects-turned.pdf'), null);
    expect(paper.text).toContain(
      'Interdisciplinary fieldwork distinguishes infiltration from evapotranspiration',
    );
    expect(paper.text).toContain('efficient offices file the findings');
  });
});

describe.each([
  ['Word', 'docx', readMarkedDocx, 'done'],
  ['OpenDocument', 'odt', readMarkedOdt, 'resolved'],
] as const)('a %s file', (_, ending, reader, doneWord) => {
  const known = truth('writer-truth.json');

  it('every comment with its very words, across runs, paragraphs, lists and cells', () => {
    const { marks } = reader(sample(`dams.${ending}`));
    const found = marks.map((mark) => ({
      kind: mark.kind,
      author: mark.author,
      text: mark.text.replace(/\s+/g, ''),
      created: mark.at?.slice(0, 16),
      exact: bare(exactOf(mark)),
      state: mark.state === doneWord ? 'done' : mark.state,
    }));
    const expected = known[`dams.${ending}`].map((remark) => ({
      ...remark,
      text: remark.text?.replace(/\s+/g, ''),
    }));
    expect(found.sort(byText)).toEqual(expected.sort(byText));
  });

  it('every tracked change, with who made it', () => {
    const { marks, paper, layout } = reader(sample(`dams-changed.${ending}`));
    const found = marks.map((mark) => ({ kind: mark.kind, author: mark.author, exact: bare(exactOf(mark)) }));
    expect(found.sort(byText)).toEqual(known[`dams-changed.${ending}`].toSorted(byText));
    expect(marks.every(({ at }) => at !== null)).toBe(true);
    expect(paper.text).toContain('in one week of dry weather, and');
    expect(paper.text).not.toContain('walked the line');
    expect(layout?.text).toContain('The wardens walked the line');
  });

  it('headings, list items and tables', () => {
    const { paper, layout } = reader(sample(`dams.${ending}`));
    expect(paper.blocks.slice(0, 3)).toMatchObject([
      { kind: 'heading', level: 1, text: 'Why the dams at Skarn Moss leak' },
      { kind: 'paragraph' },
      { kind: 'heading', level: 2, text: 'What was seen' },
    ]);
    expect(paper.blocks.filter(({ kind }) => kind === 'item').map(({ text }) => text)).toEqual([
      'peat dams: four, all tight',
      'plank dams: five, two leaking',
    ]);
    expect(layout?.blocks.flatMap(({ cell }) => (cell === null ? [] : [[cell.row, cell.column]]))).toEqual([
      [0, 0],
      [0, 1],
      [1, 0],
      [1, 1],
      [2, 0],
      [2, 1],
    ]);
    const bold = layout?.blocks.flatMap(({ styles }) => styles).find((style) => style.bold);
    expect(layout?.text.slice(bold?.from, bold?.to)).toBe('shrunk');
  });
});

it.each(['core.docx', 'core.odt'])(
  '%s: a footnote where it is called, and a picture below its paragraph',
  async (name) => {
    const { layout, paper } = await readPaper(sample(name), null);
    const [note] = layout?.notes ?? [];
    expect(layout?.text.slice(0, note.at).endsWith('beside dam four')).toBe(true);
    const footnote = layout?.blocks.find(({ kind }) => kind === 'footnote');
    expect(layout?.text.slice(footnote?.from, footnote?.to)).toBe('In the second week of March.');
    expect(layout?.pictures.map(({ mediaType, bytes }) => [mediaType, bytes.length > 500])).toEqual([
      ['image/png', true],
    ]);
    expect(layout?.blocks.map(({ kind }) => kind)).toContain('picture');
    expect(paper.text).toContain('Its layers are drawn here.');
  },
);

it('a Word file with a moved paragraph: one move, not a deletion and an insertion', () => {
  const { marks } = readMarkedDocx(sample('dams-moved.docx'));
  expect(
    marks.map((mark) => ({ kind: mark.kind, author: mark.author, exact: bare(mark.change?.after ?? null) })),
  ).toEqual(truth('writer-truth.json')['dams-moved.docx']);
  expect(marks[0].targets).toHaveLength(2);
});

/** The name that each format has for a remark over words. */
const KIND_BY_FORMAT = {
  'same.pdf': 'highlight',
  'same.docx': 'comment',
  'same.odt': 'comment',
  'same.xfdf': 'highlight',
  'same.jsonld': 'commenting',
} as const;

describe('the same remarks', async () => {
  const expected = (JSON.parse(new TextDecoder().decode(sample('same-truth.json'))) as TrueRemark[]).map(
    (remark) => ({
      author: remark.author,
      text: (remark.text ?? '').replace(/\s+/g, ''),
      created: remark.created,
      exact: bare(remark.exact),
      replies: (remark.replies ?? []).map(({ author, text }) => `${author}: ${text}`),
    }),
  );
  const chain = (replies: readonly MarkReply[]): string[] =>
    replies.flatMap(({ author, text, replies: more }) => [`${author}: ${text}`, ...chain(more)]);
  const plain = { bytes: sample('dams-plain.pdf'), paper: await readPaper(sample('dams-plain.pdf'), null) };

  it.each(Object.entries(KIND_BY_FORMAT))('come the same out of %s', async (name, kind) => {
    const marks =
      name.endsWith('.xfdf') || name.endsWith('.jsonld')
        ? await readRemarksOnto(sample(name), plain, null)
        : (await readPaper(sample(name), null)).marks;
    const found = marks.map((mark) => ({
      author: mark.author,
      text: mark.text.replace(/\s+/g, ''),
      created: mark.at?.slice(0, 16),
      exact: bare(exactOf(mark)?.replace(/• ?/g, '') ?? null),
      replies: chain(mark.replies),
    }));
    expect(found.sort(byText)).toEqual(expected.toSorted(byText));
    expect(new Set(marks.map((mark) => mark.kind))).toEqual(new Set([kind]));
  });

  it('put onto a PDF stand on its pages just where its own marks would', async () => {
    const own = (await readMarkedPdf(sample('same.pdf'), null)).marks;
    const put = await readRemarksOnto(sample('same.jsonld'), plain, null);
    for (const mark of put) {
      const [target] = mark.targets;
      const twin = own.find(({ text }) => text === mark.text)?.targets[0];
      if (target.kind !== 'words' || twin?.kind !== 'words') throw new Error(`${mark.text} has no words`);
      expect(target.page).toBe(twin.page);
      expect(target.quads).toHaveLength(twin.quads.length);
      const edges = (quads: readonly (readonly number[])[]) =>
        quads.map((quad) => Math.min(quad[0], quad[4])).sort((x, y) => x - y);
      edges(target.quads).forEach((x, i) => expect(Math.abs(x - edges(twin.quads)[i])).toBeLessThan(2));
    }
  });
});

describe('comments over just the same words', () => {
  it('have them each, in Word, OpenDocument and its flat form as LibreOffice writes them', async () => {
    for (const name of ['nested.docx', 'nested.odt', 'nested.fodt']) {
      const { marks, paper } = await readPaper(sample(name), null);
      expect(paper.text, name).toBe('The water table rose in the second year.');
      const exact = Object.fromEntries(marks.map((mark) => [mark.text, exactOf(mark)]));
      expect(exact, name).toEqual({
        c0: 'water table',
        c1: 'water table',
        c2: 'second year',
        c3: 'second',
      });
    }
  });
});

describe('a flat OpenDocument text', () => {
  it('shows the pictures that stand in it', () => {
    const png = Buffer.from(sample('core.png')).toString('base64');
    const body = `<text:p>A core.<draw:frame><draw:image><office:binary-data>${png}</office:binary-data></draw:image></draw:frame></text:p>`;
    const { layout, paper } = readMarkedFodt(
      Buffer.from(
        `<office:document><office:body><office:text>${body}</office:text></office:body></office:document>`,
      ),
    );
    expect(paper.text).toBe('A core.');
    expect(layout?.pictures.map(({ mediaType, bytes }) => [mediaType, bytes.length])).toEqual([
      ['image/png', sample('core.png').length],
    ]);
  });
});
