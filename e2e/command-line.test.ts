import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from 'vitest';

/** As it is documented; npm itself takes longer than most of what is run. */
const byNpm = (...args: string[]) =>
  spawnSync('npm', ['run', '--silent', 'juncture', '--', ...args], { encoding: 'utf8' });
const juncture = (...args: string[]) =>
  spawnSync(process.execPath, ['scripts/juncture.mjs', ...args], { encoding: 'utf8' });

test('inspect prints JSON and nothing else, or one line and exit code 1', () => {
  const read = byNpm('inspect', 'formats/samples/dams.odt');
  expect([read.status, JSON.parse(read.stdout)]).toMatchObject([0, { kind: 'odt', remarks: { length: 7 } }]);
  const locked = juncture('inspect', 'formats/samples/locked.pdf');
  const said = locked.stderr.split('\n').filter((line) => line.startsWith('formats/'));
  expect([locked.status, locked.stdout, said]).toEqual([
    1,
    '',
    [
      'formats/samples/locked.pdf: the PDF is locked; give its password with --password, or save a copy without one',
    ],
  ]);
  expect(juncture('inspect', 'nothing-there.pdf').status).toBe(1);
  expect(juncture('look').status).toBe(2);
});

test('grade computes a course, says what is odd, and what is wrong where', () => {
  const folder = mkdtempSync(join(tmpdir(), 'juncture-grade-'));
  const given = (name: string, text: string) => {
    const file = join(folder, name);
    writeFileSync(file, text);
    return juncture('grade', file);
  };
  try {
    const course = {
      scheme: 'weighted',
      categories: [{ id: 'k', weight: 60, drop: 1 }],
      assignments: [
        { id: 'a', category: 'k', possible: 40, attempts: [{ at: '2026-11-02T12:00:00Z', score: 26 }] },
        { id: 'b', category: 'k', possible: 10, attempts: [{ at: '2026-11-02T12:00:00Z', score: 9.5 }] },
      ],
    };
    const graded = given('course.json', JSON.stringify(course));
    expect([graded.status, JSON.parse(graded.stdout)]).toEqual([
      0,
      {
        grade: 0.95,
        categories: [{ id: 'k', ratio: 0.95, earned: 9.5, possible: 10, dropped: ['a'] }],
        assignments: [
          { id: 'a', score: 26 },
          { id: 'b', score: 9.5 },
        ],
      },
    ]);
    expect(graded.stderr).toContain('the weights add up to 60, not 100');
    const wrong = given('wrong.json', '{"scheme": "points", "assignments": [{"id": 7}]}');
    expect([wrong.status, wrong.stdout]).toEqual([1, '']);
    expect(wrong.stderr).toContain('wrong.json: assignments[0].id: an id is wanted');
    expect(juncture('grade').status).toBe(2);
  } finally {
    rmSync(folder, { recursive: true });
  }
});

test('says tells what remarks say, in their order, and which entry is off', () => {
  const folder = mkdtempSync(join(tmpdir(), 'juncture-says-'));
  const given = (text: string) => {
    const file = join(folder, 'remarks.json');
    writeFileSync(file, text);
    return juncture('says', file);
  };
  try {
    const text = 'Lovely opening, but the second claim has no source.';
    const remarks = [
      { text, author: 'Dr Aune Keld' },
      { text: '', kind: 'strikeout' },
      { text: '-2 for units' },
    ];
    const told = given(JSON.stringify(remarks));
    const [first, second, third] = JSON.parse(told.stdout) as { parts: { start: number; end: number }[] }[];
    expect(told.status).toBe(0);
    expect(first).toMatchObject({ callsForChange: true, points: null, hint: null, promise: null });
    expect(third).toMatchObject({ points: 2 });
    expect(first.parts.map(({ start, end }) => text.slice(start, end)).at(0)).toBe('Lovely opening,');
    expect(second).toMatchObject({ stance: 'fix', parts: [], task: null });
    const wrong = given('[{"text": "Fine."}, {"text": 7}]');
    expect([wrong.status, wrong.stdout]).toEqual([1, '']);
    expect(wrong.stderr).toContain('entry 1.text');
    expect(given('fine').stderr).toContain('it is not JSON');
  } finally {
    rmSync(folder, { recursive: true });
  }
});

test('compare and follow tell what changed, and what became of the words of remarks', () => {
  const folder = mkdtempSync(join(tmpdir(), 'juncture-follow-'));
  const file = (name: string, text: string) => {
    const path = join(folder, name);
    writeFileSync(path, text);
    return path;
  };
  try {
    const older = file('old.txt', 'The planks had shrunk. Water ran through.\n\nThe dam was mended.\n');
    const newer = file(
      'new.txt',
      'The planks had shrunk. Gaps of three millimetres had opened. Water ran through.\n\nThe dam was mended in May.\n',
    );
    const remark = (id: string, exact: string) => ({
      '@context': 'http://www.w3.org/ns/anno.jsonld',
      type: 'Annotation',
      id,
      body: 'By how much?',
      creator: 'Dr Aune Keld',
      target: { source: 'old.txt', selector: { type: 'TextQuoteSelector', exact } },
    });
    const remarks = file(
      'remarks.json',
      JSON.stringify([remark('urn:x:1', 'The planks had shrunk'), remark('urn:x:2', 'Water ran through')]),
    );
    const compared = juncture('compare', older, newer);
    expect([compared.status, JSON.parse(compared.stdout)]).toMatchObject([
      0,
      { kept: 11, added: 8, removed: 0, moved: 0, changes: [{ kind: 'added' }, { kind: 'added' }] },
    ]);
    const followed = juncture('follow', older, newer, remarks);
    const text = 'The planks had shrunk. Gaps of three millimetres had opened. Water ran through.';
    const start = text.indexOf('Gaps');
    const added = [{ start, end: text.indexOf(' Water') }];
    expect([followed.status, JSON.parse(followed.stdout)]).toMatchObject([
      0,
      [
        { id: 'urn:x:1', outcome: 'added to', place: { start: 0, end: 21 }, added, kept: 1 },
        { id: 'urn:x:2', outcome: 'added to', added, kept: 1 },
      ],
    ]);
    const missing = juncture('follow', older, join(folder, 'none.txt'), remarks);
    expect([missing.status, missing.stdout]).toEqual([1, '']);
    expect(missing.stderr).toContain('none.txt: there is no such file');
    expect(juncture('compare', older).status).toBe(2);
  } finally {
    rmSync(folder, { recursive: true });
  }
});

test('plan chooses the best tasks for some minutes, and says why it can’t', () => {
  const folder = mkdtempSync(join(tmpdir(), 'juncture-plan-'));
  const given = (name: string, content: unknown) => {
    const file = join(folder, name);
    writeFileSync(file, JSON.stringify(content));
    return juncture('plan', file);
  };
  try {
    const tasks = [
      { id: 'map', minutes: 60, gain: 0.9 },
      { id: 'read', minutes: 20, gain: 0 },
      { id: 'cite', minutes: 20, gain: 0.7, needs: ['read'] },
      { id: 'spell', minutes: 10, gain: 0.2, must: true },
    ];
    const planned = given('plan.json', { minutes: 75, tasks });
    expect([planned.status, JSON.parse(planned.stdout)]).toEqual([
      0,
      {
        chosen: ['map', 'spell'],
        minutes: 70,
        gain: 1.1,
        curve: [
          [10, 0.2],
          [50, 0.9],
          [70, 1.1],
        ],
      },
    ]);
    const circle = given('circle.json', { minutes: 75, tasks: [{ ...tasks[1], needs: ['cite'] }, tasks[2]] });
    expect([circle.status, circle.stdout]).toEqual([1, '']);
    expect(circle.stderr).toContain('circle.json: tasks need each other in a circle: read, cite, read');
    expect(given('short.json', { minutes: 5, tasks }).stderr).toContain(
      'what must be done takes 10 minutes, and there are 5',
    );
    expect(given('wrong.json', { minutes: 5, tasks: [{ id: 'a', minutes: 1.5, gain: 1 }] }).stderr).toContain(
      'tasks[0].minutes: a whole number is wanted',
    );
  } finally {
    rmSync(folder, { recursive: true });
  }
});

test('overlap tells what a draft shares with sources, and leaves out what can’t be read', () => {
  const folder = mkdtempSync(join(tmpdir(), 'juncture-overlap-'));
  const file = (name: string, text: string) => {
    const path = join(folder, name);
    writeFileSync(path, text);
    return path;
  };
  const copied = 'the water table came up within weeks near the dams but took years farther out';
  try {
    const draft = file('draft.md', `# A report\n\nOn other hills ${copied} (Hask, 2018). We saw the same.\n`);
    const page = file(
      'hask.html',
      `<!doctype html><html><body><p>On all three bogs ${copied}.</p></body></html>`,
    );
    const own = file('own.txt', `Earlier I wrote that ${copied}.`);
    const about = file(
      'about.json',
      JSON.stringify([
        {
          file: 'hask.html',
          authors: ['Hask, L.'],
          year: 2018,
          title: 'A first season',
          relation: 'published',
        },
        { file: own, relation: 'own' },
      ]),
    );
    const ran = juncture(
      'overlap',
      draft,
      page,
      own,
      'formats/samples/core.png',
      'nowhere.txt',
      '--about',
      about,
    );
    expect(ran.status).toBe(0);
    expect(ran.stderr).toMatch(
      /core\.png: there is no text in it.*left out[\s\S]*nowhere\.txt: there is no such file; it is left out/,
    );
    const told = JSON.parse(ran.stdout) as {
      words: number;
      matchedWords: number;
      sources: { name: string; words: number }[];
      matches: { draftStart: number; draftEnd: number; source: string; advice: string; reason: string }[];
    };
    expect(told).toMatchObject({ words: 26, matchedWords: 15, percent: 57.7 });
    expect(told.sources).toMatchObject([{ words: 15 }, { words: 0 }]);
    const { text } = JSON.parse(juncture('inspect', draft, '--text').stdout) as { text: string };
    expect(
      told.matches.map((one) => [
        text.slice(one.draftStart, one.draftEnd),
        one.source,
        one.advice,
        one.reason,
      ]),
    ).toEqual([
      [copied, page, 'mark-words', 'named, not marked'],
      [copied, own, 'ask', 'own earlier text'],
    ]);
    const wrong = (...args: string[]) => juncture('overlap', draft, own, ...args);
    expect(wrong('--min-words', '3').stderr).toContain('--min-words is a whole number from 4 to 25');
    expect(wrong('--about', draft)).toMatchObject({ status: 1 });
    expect(juncture('overlap', draft).status).toBe(2);
    expect(juncture('overlap', file('empty.md', ''), own).status).toBe(1);
  } finally {
    rmSync(folder, { recursive: true });
  }
});

test('check tells what a careful reader would look at again', () => {
  const folder = mkdtempSync(join(tmpdir(), 'juncture-check-'));
  const file = (name: string, text: string) => {
    writeFileSync(join(folder, name), text);
    return join(folder, name);
  };
  const marked = file(
    'marked.md',
    'The depth was 12 cm in March. In April the well beside the ditch gave a depth of 9 cm.',
  );
  const draft = file(
    'draft.md',
    'The depth was 120 mm in March. In April the the well beside the ditch gave a depth of 9 cm.',
  );
  const brief = file('brief.txt', 'Write at least 900 words. Keep it under 600 words.');
  const { status, stdout } = juncture('check', draft, '--brief', brief, '--marked', marked);
  expect(status).toBe(0);
  const lines = JSON.parse(stdout) as { kind: string; place: { start: number; end: number } | null }[];
  expect(lines.map(({ kind }) => kind)).toEqual([
    'brief contradicts itself',
    'asked: words',
    'changed here, not there',
    'repeated word',
  ]);
  const { text } = JSON.parse(juncture('inspect', '--text', draft).stdout) as { text: string };
  const said = (kind: string) => lines.find((line) => line.kind === kind)?.place ?? { start: 0, end: 0 };
  const at = said('repeated word');
  expect(text.slice(at.start, at.end)).toBe('the the');
  expect(juncture('check', draft, '--style', 'by ear').stderr).toContain('--style is one of author-date');
  const none = juncture('check', draft, '--marked', join(folder, 'none.pdf'));
  expect(none.status).toBe(1);
  expect(none.stderr).toContain('none.pdf: there is no such file');
  rmSync(folder, { recursive: true });
});
