import fc from 'fast-check';
import { strToU8, zipSync } from 'fflate';
import { describe, expect, it } from 'vitest';
import { exactOf, type Mark } from './marked-paper.ts';
import { readRemarksOnto, readRemarksUnplaced } from './place-remarks.ts';
import { readPaper } from './read-paper.ts';
import { recognise, recogniseNamed } from './recognise.ts';
import { remarksFileOf } from './remarks-file.ts';
import { sample } from './samples/sample.ts';
import { readVtt } from './sound/read-vtt.ts';
import { readText } from './text/read-text.ts';
import { UnreadableFile } from './unreadable.ts';
import { marksOfWebRemarks } from './web-annotation/place.ts';
import { readWebAnnotations } from './web-annotation/read-web-annotation.ts';
import { regionOfSvg } from './web-annotation/svg-region.ts';
import { readXfdf } from './xfdf/read-xfdf.ts';

const targetOf = (mark: Mark | undefined) => mark?.targets[0];

describe('what a file is', () => {
  it.each([
    ['kinds.pdf', 'pdf'],
    ['dams.docx', 'docx'],
    ['dams.odt', 'odt'],
    ['core.png', 'picture'],
    ['core.webp', 'picture'],
    ['core-turned.jpg', 'picture'],
    ['core.gif', 'picture'],
    ['core.avif', 'picture'],
    ['nested.fodt', 'odt'],
    ['spoken.flac', 'recording'],
    ['spoken.aac', 'recording'],
    ['same.xfdf', 'xfdf'],
    ['same.jsonld', 'web annotation'],
    ['core-regions.jsonld', 'web annotation'],
    ['spoken.wav', 'recording'],
    ['spoken.mp3', 'recording'],
    ['spoken.ogg', 'recording'],
    ['spoken.m4a', 'recording'],
    ['spoken.webm', 'recording'],
    ['spoken.vtt', 'transcript'],
    ['make.sh', 'text'],
  ])('%s is told by its content: %s', (name, kind) => {
    expect(recognise(sample(name)).kind).toBe(kind);
  });

  it('has a plain reason where it is none of these', () => {
    const reason = (bytes: Uint8Array) => {
      try {
        return recognise(bytes).kind;
      } catch (error) {
        return error instanceof UnreadableFile ? error.reason : error;
      }
    };
    expect(reason(new Uint8Array())).toBe('empty');
    expect(reason(strToU8('\0\0\0\x18ftypheic'))).toBe('HEIC picture');
    expect(reason(new Uint8Array([1, 2, 0, 4]))).toBe('unknown kind');
    expect(reason(strToU8('<!doctype html><p>Hello'))).toBe('unknown kind');
    expect(reason(strToU8('{"name": "something else"}'))).toBe('unknown kind');
  });

  it('has a reason that fits its kind where that is known and not read', () => {
    const reason = (bytes: Uint8Array, name: string) => {
      try {
        return recogniseNamed(bytes, name).kind;
      } catch (error) {
        return error instanceof UnreadableFile ? error.reason : error;
      }
    };
    const archive = (part: string) => zipSync({ [part]: strToU8('<x/>') });
    const binary = new Uint8Array([1, 2, 0, 4]);
    expect(reason(archive('ppt/presentation.xml'), 'talk.pptx')).toBe('slides');
    expect(reason(archive('xl/workbook.xml'), 'levels.xlsx')).toBe('a table of figures');
    expect(reason(archive('imsmanifest.xml'), 'quiz.zip')).toBe('unknown quiz');
    expect(reason(strToU8('<?xml version="1.0"?><questestinterop><item/></questestinterop>'), 'q.xml')).toBe(
      'unknown quiz',
    );
    expect(reason(strToU8('II*\0scan'), 'scan.tif')).toBe('unknown picture');
    expect(reason(strToU8('#!AMR\n\0'), 'note.amr')).toBe('unknown recording');
    expect(reason(binary, 'voice.wma')).toBe('unknown recording');
    expect(reason(binary, 'anything')).toBe('unknown kind');
  });
});

describe('pictures', () => {
  it('have the size in which they are shown, turned as the camera says', async () => {
    for (const name of ['core.png', 'core.webp', 'core-turned.jpg', 'core.gif', 'core.avif'])
      expect((await readPaper(sample(name), null)).pages).toMatchObject([{ width: 320, height: 480 }]);
  });

  it('take remarks on their parts, and keep those that lie beside them', async () => {
    const paper = await readPaper(sample('core.png'), null);
    const marks = await readRemarksOnto(
      sample('core-regions.jsonld'),
      { bytes: sample('core.png'), paper },
      null,
    );
    expect(marks.map((mark) => targetOf(mark))).toEqual([
      { kind: 'region', x: 110, y: 40, width: 100, height: 90, outline: null },
      {
        kind: 'region',
        x: 100,
        y: 130,
        width: 120,
        height: 12,
        outline: 'M100 130L220 130L220 142L100 142Z',
      },
      { kind: 'region', x: 96, y: 240, width: 128, height: 120, outline: null },
      { kind: 'unplaced', said: 'xywh=900,900,10,10' },
    ]);
  });

  it('that are damaged say so', async () => {
    await expect(readPaper(sample('core.png').subarray(0, 12), null)).rejects.toMatchObject({
      reason: 'damaged picture',
    });
  });

  it.each([
    ['<svg><rect x="1" y="2" width="3" height="4"/></svg>', [1, 2, 3, 4]],
    ['<svg><circle cx="10" cy="10" r="4"/></svg>', [6, 6, 8, 8]],
    ['<svg><g><path d="M1 1 h9 v5 H1 Z"/></g></svg>', [1, 1, 9, 5]],
    ['<svg:svg xmlns:svg="x"><svg:polygon points="0,0 4,0 4,8"/></svg:svg>', [0, 0, 4, 8]],
  ])('bound the shape %s', (svg, [x, y, width, height]) => {
    expect(regionOfSvg(svg)).toMatchObject({ x, y, width, height });
  });

  it('take no shape that is more than a shape', () => {
    expect(regionOfSvg('<svg><path d="M0 0L1 1&quot; onload=&quot;x"/></svg>')).toBeNull();
    expect(regionOfSvg('<svg><script>alert(1)</script></svg>')).toBeNull();
    expect(regionOfSvg('<svg')).toBeNull();
  });
});

describe('Web Annotations', () => {
  const paper = readText(
    strToU8('# Peat\n\nThe bog holds water. The bog holds peat.\n\n- moss\n- heath'),
  ).paper;
  const on = (...targets: unknown[]) =>
    marksOfWebRemarks(
      readWebAnnotations(
        strToU8(
          JSON.stringify(
            targets.map((target, i) => ({ type: 'Annotation', id: `urn:a:${i}`, body: 'Why?', target })),
          ),
        ),
      ),
      { kind: 'text', paper, pages: [] },
    );
  const quote = (exact: string, more = {}) => ({ type: 'TextQuoteSelector', exact, ...more });
  const at = (selector: unknown) => on({ source: 'x', selector })[0];

  it('are placed by the first selector that finds its words', () => {
    expect(exactOf(at([{ type: 'CssSelector', value: 'p' }, quote('holds water')]))).toBe('holds water');
    expect(exactOf(at([quote('never there'), quote('moss')]))).toBe('moss');
    expect(exactOf(at({ type: 'TextPositionSelector', start: 5, end: 12 }))).toBe('The bog');
    expect(
      exactOf(at({ type: 'RangeSelector', startSelector: quote('holds peat'), endSelector: quote('moss') })),
    ).toBe('holds peat.\n');
    expect(exactOf(at({ type: 'FragmentSelector', value: 'page=1', refinedBy: quote('heath') }))).toBe(
      'heath',
    );
  });

  it('stand at none of two equal places, unless something tells which', () => {
    expect(targetOf(at(quote('The bog holds')))).toEqual({ kind: 'unplaced', said: 'The bog holds' });
    expect(at(quote('The bog holds', { suffix: ' peat' })).anchor?.from).toBe(
      paper.text.lastIndexOf('The bog'),
    );
    const byPosition = at([quote('The bog holds'), { type: 'TextPositionSelector', start: 27, end: 40 }]);
    expect(byPosition.anchor?.from).toBe(paper.text.lastIndexOf('The bog'));
  });

  it('that quote what is not there stay unplaced, whatever position they name', () => {
    const mark = at([quote('Sphagnum'), { type: 'TextPositionSelector', start: 0, end: 4 }]);
    expect(targetOf(mark)).toEqual({ kind: 'unplaced', said: 'Sphagnum' });
    expect(mark.text).toBe('Why?');
  });

  it('may be about several places, or about the whole', () => {
    const [several] = marksOfWebRemarks(
      readWebAnnotations(
        strToU8(
          JSON.stringify({
            type: 'Annotation',
            target: [
              { source: 'x', selector: quote('moss') },
              { source: 'x', selector: quote('heath') },
            ],
          }),
        ),
      ),
      { kind: 'text', paper, pages: [] },
    );
    expect(exactOf(several)).toBe('moss heath');
    expect(targetOf(on('x')[0])).toEqual({ kind: 'whole' });
  });

  it('have the text of their bodies, never their markup, and say when a program wrote them', () => {
    const [mark] = readWebAnnotations(
      strToU8(
        JSON.stringify({
          '@context': 'http://www.w3.org/ns/anno.jsonld',
          type: 'Annotation',
          creator: { type: 'Software', name: 'Comma counter' },
          body: [
            { type: 'TextualBody', purpose: 'tagging', value: 'comma' },
            {
              type: 'TextualBody',
              format: 'text/html',
              value: '<p>One <b>too many</b>.</p><script>alert(1)</script>',
            },
          ],
          target: 'x',
        }),
      ),
    );
    expect(mark).toMatchObject({ text: 'One too many.', byMachine: true, author: 'Comma counter' });
  });

  it('on recordings name their seconds', () => {
    const read = (value: string) =>
      marksOfWebRemarks(
        readWebAnnotations(strToU8(JSON.stringify({ type: 'Annotation', target: `talk.mp3#${value}` }))),
        { kind: 'recording' },
      )[0].targets;
    expect(read('t=4.5,9')).toEqual([{ kind: 'time', fromS: 4.5, toS: 9 }]);
    expect(read('t=npt:1:02')).toEqual([{ kind: 'time', fromS: 62, toS: null }]);
    expect(read('t=,3')).toEqual([{ kind: 'time', fromS: 0, toS: 3 }]);
  });

  it('that answer one another in a circle are each there once, and nothing hangs', () => {
    const circle = ['a', 'b', 'c'].map((id, i, all) => ({
      type: 'Annotation',
      id: `urn:${id}`,
      target: `urn:${all[(i + 1) % 3]}`,
      body: id,
    }));
    expect(readWebAnnotations(strToU8(JSON.stringify(circle))).map(({ text }) => text)).toEqual([
      'a',
      'b',
      'c',
    ]);
  });

  it('never fail in an unforeseen way, whatever JSON they are', () => {
    fc.assert(
      fc.property(fc.json(), (json) => {
        const text = json.replace(/"[a-z]{1,4}":/g, '"type":"Annotation","target":');
        try {
          marksOfWebRemarks(readWebAnnotations(strToU8(text)), { kind: 'text', paper, pages: [] });
        } catch (error) {
          expect(error).toBeInstanceOf(UnreadableFile);
        }
      }),
      { numRuns: 300 },
    );
  });
});

describe('XFDF', () => {
  it('keeps strokes, corners, states and groups', () => {
    const found = readXfdf(
      strToU8(`<?xml version="1.0"?><xfdf xmlns="http://ns.adobe.com/xfdf/"><annots>
        <ink page="2" rect="1,2,3,4" color="#FF0000"><inklist><gesture>1,2;3,4</gesture><gesture>5,6;7,8</gesture></inklist></ink>
        <line page="0" rect="0,0,9,9" start="1,1" end="8,8" title="W"/>
        <text page="0" rect="0,0,9,9" name="s" inreplyto="q" statemodel="Review" state="Accepted"/>
        <caret page="0" rect="0,0,9,9" inreplyto="q" replyType="group"><contents>of</contents></caret>
        <popup page="0" rect="0,0,9,9"/></annots></xfdf>`),
    );
    expect(
      found.map(({ kind, page, shape, color, state, grouped }) => ({
        kind,
        page,
        shape,
        color,
        state,
        grouped,
      })),
    ).toEqual([
      {
        kind: 'ink',
        page: 3,
        shape: [
          [1, 2, 3, 4],
          [5, 6, 7, 8],
        ],
        color: '#ff0000',
        state: null,
        grouped: false,
      },
      { kind: 'line', page: 1, shape: [[1, 1, 8, 8]], color: null, state: null, grouped: false },
      { kind: 'text', page: 1, shape: [], color: null, state: 'Accepted', grouped: false },
      { kind: 'caret', page: 1, shape: [], color: null, state: null, grouped: true },
    ]);
  });

  it('belongs on a PDF, and says which', async () => {
    expect(remarksFileOf(sample('same.xfdf'), 'xfdf')).toMatchObject({ count: 7, about: ['dams-plain.pdf'] });
    const text = { bytes: strToU8('text'), paper: await readPaper(strToU8('text'), null) };
    await expect(readRemarksOnto(sample('same.xfdf'), text, null)).rejects.toMatchObject({
      reason: 'no page to place on',
    });
  });

  it('about a page that is not there stays unplaced', async () => {
    const bytes = sample('sideways.pdf');
    const xfdf =
      '<xfdf><annots><text page="8" rect="0,0,9,9"><contents>Where?</contents></text></annots></xfdf>';
    const [mark] = await readRemarksOnto(strToU8(xfdf), { bytes, paper: await readPaper(bytes, null) }, null);
    expect(mark).toMatchObject({ text: 'Where?', targets: [{ kind: 'unplaced', said: 'page 9' }] });
  });
});

describe('transcripts and plain texts', () => {
  it('a text of 40,000 words in one line is read like any other', async () => {
    const line = Array.from({ length: 5000 }, (_, n) => `Well ${n} rose by a hand’s breadth in spring.`).join(
      ' ',
    );
    const { paper } = await readPaper(strToU8(`# Wells\n${line}`), null);
    expect(paper.blocks.map(({ kind, text }) => [kind, text.length])).toEqual([
      ['heading', 5],
      ['paragraph', line.length],
    ]);
  });

  it('tell what is said when, and by whom', () => {
    const cues = readVtt(sample('spoken.vtt'));
    expect(cues.map(({ fromS, toS, speaker }) => [fromS, toS, speaker])).toEqual([
      [0, 4, 'Dr Aune Keld'],
      [4, 9, 'Dr Aune Keld'],
    ]);
    expect(cues[1].text).toBe('But the legend is missing, so nobody can tell peat from clay.');
    expect(() => readVtt(strToU8('Hello'))).toThrow(UnreadableFile);
  });

  it('have headings, items and paragraphs', () => {
    expect(
      readText(strToU8('# Peat\n\nA line\nand more.\n- moss\n- heath\n\n## Wet\nGround')).paper.blocks,
    ).toEqual([
      { kind: 'heading', level: 1, text: 'Peat' },
      { kind: 'paragraph', level: 0, text: 'A line and more.' },
      { kind: 'item', level: 0, text: 'moss' },
      { kind: 'item', level: 0, text: 'heath' },
      { kind: 'heading', level: 2, text: 'Wet' },
      { kind: 'paragraph', level: 0, text: 'Ground' },
    ]);
  });
});

describe('remarks about a file that is not here', () => {
  it('are there all the same, each with the place that it names', () => {
    const annotation = (selector: object) => ({
      type: 'Annotation',
      body: { type: 'TextualBody', value: 'Say why.' },
      target: { source: 'lost.pdf', selector },
    });
    const marks = readRemarksUnplaced(
      new TextEncoder().encode(
        JSON.stringify([
          annotation({ type: 'TextQuoteSelector', exact: 'the water rose' }),
          annotation({ type: 'FragmentSelector', value: 'xywh=1,2,3,4' }),
        ]),
      ),
    );
    expect(marks.map(({ text, targets }) => [text, targets])).toEqual([
      ['Say why.', [{ kind: 'unplaced', said: 'the water rose' }]],
      ['Say why.', [{ kind: 'unplaced', said: 'xywh=1,2,3,4' }]],
    ]);
  });
});
