import { describe, expect, it } from 'vitest';
import { exampleJudgement, exampleRemark, wordsTarget } from '../model/example.ts';
import type { PromiseNote } from '../model/work.ts';
import { doublesOf } from './doubled.ts';
import type { Remark } from '../model/remark.ts';
import { readFileSync } from 'node:fs';
import { decodeModel } from '../saying/model.ts';
import { says } from '../saying/says.ts';
import { promisesOf, type Promised } from './promises.ts';

const SAID = 'Say which ditch you mean, there are three.';
const doubled = (remarks: Parameters<typeof doublesOf>[0], apart: string[] = []) =>
  Object.fromEntries(
    [...doublesOf(remarks, new Map(apart.map((id) => [id, exampleJudgement(id, { apart: true })])))].map(
      ([id, list]) => [id, list.map((r) => r.id as string)],
    ),
  );

describe('the same words twice', () => {
  const inPaper = exampleRemark({ id: 'p', text: SAID, targets: [wordsTarget('the ditch')] });
  const overall = exampleRemark({ id: 'o', channel: 'overall', text: `  ${SAID.toUpperCase()}` });

  it('at just the same place are one remark, at two places of one paper two', () => {
    const quads = [[70, 90, 170, 90, 70, 78, 170, 78]];
    const marked = (id: string, at = quads) =>
      exampleRemark({ id, text: SAID, targets: [{ ...wordsTarget('the ditch'), quads: at }] });
    expect(doubled([marked('p'), marked('again')])).toEqual({ p: ['again'] });
    expect(doubled([marked('p'), marked('below', [[70, 60, 170, 60, 70, 48, 170, 48]])])).toEqual({});
  });

  it('in two channels are one remark, which counts where it has a place', () => {
    expect(doubled([overall, inPaper])).toEqual({ p: ['o'] });
  });

  it('stand for themselves by another author, by another word, or once parted', () => {
    const peer = { ...overall, author: { name: 'Joss', role: 'peer' as const } };
    expect(doubled([inPaper, peer])).toEqual({});
    expect(doubled([inPaper, exampleRemark({ ...overall, text: `${SAID} Two are dry.` })])).toEqual({});
    expect(doubled([inPaper, overall], ['o'])).toEqual({});
  });

  it('are two remarks within one file, and in two channels when they are few', () => {
    const again = exampleRemark({ ...inPaper, id: 'p2', targets: [wordsTarget('another ditch')] });
    expect(doubled([inPaper, again])).toEqual({});
    const short = exampleRemark({ id: 's', text: 'Source?', targets: [wordsTarget('it is known')] });
    expect(doubled([short, exampleRemark({ id: 't', text: 'Source?', channel: 'criterion' })])).toEqual({});
  });

  it('in two copies of a paper are one, each with its like', () => {
    const at = (id: string, file: string, exact: string) =>
      exampleRemark({ id, text: 'Source?', fileHash: file.repeat(64), targets: [wordsTarget(exact)] });
    const remarks = [
      at('1', 'a', 'it is known'),
      at('2', 'a', 'most agree'),
      at('3', 'b', 'most agree'),
      at('4', 'b', 'it is known'),
    ];
    expect(doubled(remarks)).toEqual({ 1: ['4'], 2: ['3'] });
  });

  it('never take two remarks of one file for one', () => {
    const at = (id: string, file: string) =>
      exampleRemark({ id, text: SAID, fileHash: file.repeat(64), targets: [{ kind: 'whole' }] });
    expect(doubled([at('1', 'a'), at('2', 'a'), at('3', 'b'), at('4', 'b')])).toEqual({
      1: ['3'],
      2: ['4'],
    });
  });
});

describe('promises', () => {
  const overall = exampleRemark({
    id: 'o',
    channel: 'overall',
    text: 'A good start. See my notes in the file.',
  });
  const states = (found: readonly Promised[]) => found.map(({ state }) => state);
  const model = decodeModel(new Uint8Array(readFileSync(new URL('../saying/saying.model', import.meta.url))));
  const promised = (
    remarks: readonly Remark[],
    notes: readonly PromiseNote[],
    announced: Parameters<typeof promisesOf>[2],
  ) => promisesOf(remarks, notes, announced, new Map(remarks.map((one) => [one.id, says(one, model)])));

  it('are missing where nothing came, and a gap no more while files are announced', () => {
    expect(states(promised([overall], [], {}))).toEqual(['missing']);
    expect(states(promised([overall], [], { passage: 3 }))).toEqual(['coming']);
    expect(states(promised([overall], [], { recording: 1 }))).toEqual(['missing']);
  });

  it('are kept by remarks of the same hand on the same attempt', () => {
    const note = exampleRemark({ id: 'n' });
    const [kept] = promised([overall, note], [], {});
    expect(kept.state).toBe('kept');
    expect(kept.kept).toEqual([note]);
    expect(kept.said).toBe('See my notes in the file.');
    const peer = exampleRemark({ id: 'x', author: { name: 'Joss', role: 'peer' } });
    expect(states(promised([overall, peer], [], {}))).toEqual(['missing']);
    expect(states(promised([overall, exampleRemark({ id: 'y', attemptId: 'a-2' })], [], {}))).toEqual([
      'missing',
    ]);
    expect(states(promised([overall, exampleRemark({ id: 'w', withdrawn: true })], [], {}))).toEqual([
      'missing',
    ]);
  });

  it('are not made within the paper, and are told as such where they are for a meeting', () => {
    expect(promised([exampleRemark({ text: 'Same as above.' })], [], {})).toEqual([]);
    const meet = exampleRemark({ channel: 'criterion', text: 'Come and see me about this.' });
    expect(states(promised([meet], [], {}))).toEqual(['in person']);
  });

  it('can be dismissed, and put in by hand', () => {
    const note = (given: object) =>
      ({
        id: 'x',
        assignmentId: 'a',
        remarkId: null,
        said: 'She will send a recording',
        place: 'recording',
        dismissed: false,
        at: '2026-11-02T10:00:00.000Z',
        ...given,
      }) as PromiseNote;
    const dismissed = note({ id: 'promise/o', remarkId: 'o', place: 'paper', dismissed: true });
    expect(states(promised([overall], [dismissed], {}))).toEqual(['dismissed']);
    expect(states(promised([], [note({})], {}))).toEqual(['missing']);
    const recording = exampleRemark({ id: 'r', channel: 'recording', kind: 'recording' });
    expect(states(promised([recording], [note({})], {}))).toEqual(['kept']);
  });
});
