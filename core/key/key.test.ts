import { describe, expect, it } from 'vitest';
import { exampleRemark } from '../model/example.ts';
import type { MarkKey, MarkSign } from '../model/work.ts';
import { exampleSaying } from '../saying/example.ts';
import { taskFor } from '../saying/task-wording.ts';
import type { Saying } from '../saying/saying.ts';
import { colorMeant, colorName } from './colors.ts';
import { asKeyed } from './keyed.ts';
import { proposedKeys } from './learnt.ts';
import { meaningOfShort, shortStatementsIn, tellsKey } from './statements.ts';
import { entryFor } from './signs.ts';

const AMBER = '#e0a030';
const VIOLET = '#9050c0';
const entry = (sign: MarkSign, given: Partial<MarkKey> = {}): MarkKey => ({
  id: 'k',
  author: 'Dr Aune Keld',
  sign,
  meaning: 'asks for evidence',
  stance: 'fix',
  decision: null,
  ...given,
});
const understoodAs = (said: Readonly<Record<string, Saying>>) => ({
  judgements: new Map(),
  sayings: new Map(Object.entries(said)),
});

describe('names of colours', () => {
  it('are those of the nearest hue, and of greys', () => {
    const names = ['#ff0000', '#ffd23f', AMBER, '#3f7a3a', '#1f5f97', VIOLET, '#777777', '#0a0a0a'].map(
      colorName,
    );
    expect(names).toEqual(['red', 'amber', 'amber', 'green', 'blue', 'violet', 'grey', 'black']);
    expect(colorName('#ffff00')).toBe('yellow');
  });

  it('are known by other words, and by a neighbour where the one that is said isn’t used', () => {
    expect(colorMeant('purple', ['violet', 'amber'])).toBe('violet');
    expect(colorMeant('yellow', ['violet', 'amber'])).toBe('amber');
    expect(colorMeant('green', ['violet', 'amber'])).toBeNull();
    expect(colorMeant('grey', ['violet'])).toBeNull();
  });
});

describe('what is proposed for a key', () => {
  const marked = (id: string, color: string | null, text: string, kind = 'highlight') =>
    exampleRemark({ id, color, text, kind });

  it('is what the author says of marks that stand in the work', () => {
    const remarks = [
      marked(
        'said',
        null,
        'Amber marks ask for evidence, violet ones are about a word; green ones I liked.',
        'text',
      ),
      marked('a', AMBER, ''),
      marked('v', VIOLET, 'Hm.'),
    ];
    const found = proposedKeys(remarks, understoodAs({}), []);
    expect(found.map(({ sign, meaning, by }) => [sign.kind, sign.name, meaning, by])).toEqual([
      ['color', 'amber', 'evidence', 'said'],
      ['color', 'violet', 'a word', 'said'],
    ]);
    expect(found[0].saidBy?.id).toBe('said');
    expect(proposedKeys(remarks, understoodAs({}), [entry(found[0].sign)])).toHaveLength(1);
  });

  it('is what remarks with a colour turn out to say, where others of the hand say something else', () => {
    const remarks = [
      ...['a', 'b', 'c'].map((id) => marked(id, AMBER, 'Well seen.')),
      ...['d', 'e', 'f'].map((id) => marked(id, VIOLET, 'Cite this.')),
    ];
    const said = Object.fromEntries(
      remarks.map(({ id, color }) => [id, exampleSaying(color === AMBER ? 'praise' : 'fix')]),
    );
    const found = proposedKeys(remarks, understoodAs(said), []);
    expect(found.map(({ sign, stance, by }) => [sign.name, stance, by])).toEqual([
      ['amber', 'praise', 'turned out'],
      ['violet', 'fix', 'turned out'],
    ]);
    const alike = Object.fromEntries(remarks.map(({ id }) => [id, exampleSaying('fix')]));
    expect(proposedKeys(remarks, understoodAs(alike), [])).toEqual([]);
  });

  it('has abbreviations, with what they mean in the trade, or as the author says', () => {
    const remarks = [
      marked('x', null, 'awk.', 'text'),
      marked('y', null, 'awk: turn it round', 'text'),
      marked('z', null, 'In my remarks “mq” means the moor question.', 'text'),
      marked('q', null, 'mq', 'text'),
      marked('r', null, 'mq', 'text'),
    ];
    expect(
      proposedKeys(remarks, understoodAs({}), []).map(({ sign, meaning }) => [sign.name, meaning]),
    ).toEqual([
      ['mq', 'the moor question'],
      ['awk', 'word this better'],
    ]);
  });
});

describe('what an abbreviation means in a hand', () => {
  const by = (name: string, text: string) => exampleRemark({ text, author: { name, role: 'instructor' } });
  const told = by(
    'Pascoe Wray',
    'A fine log. Abbreviations as always: bd boundary, sc scale, id look again.',
  );

  it('is as its author says, in a list or one by one', () => {
    expect(shortStatementsIn(told.text)).toEqual([
      { name: 'bd', meaning: 'boundary' },
      { name: 'sc', meaning: 'scale' },
      { name: 'id', meaning: 'look again' },
    ]);
    expect(shortStatementsIn('“ev.” means evidence, q = quotation marks.')).toEqual([
      { name: 'ev', meaning: 'evidence' },
      { name: 'q', meaning: 'quotation marks' },
    ]);
    expect(shortStatementsIn('The key point: it is too long, and too loose.')).toEqual([]);
  });

  it('is no other author’s, and the student’s word goes before', () => {
    const remark = by('Pascoe Wray', 'id. Look at the leaves.');
    expect(meaningOfShort(remark, [], [told, remark])).toBe('look again');
    expect(meaningOfShort(by('Dr Aune Keld', 'id.'), [], [told])).toBeNull();
    const own = { ...entry({ kind: 'short', name: 'id' }), author: 'Pascoe Wray', meaning: 'name it' };
    expect(meaningOfShort(remark, [own], [told])).toBe('name it');
    expect(meaningOfShort(by('Pascoe Wray', 'Look again.'), [], [told])).toBeNull();
  });
});

describe('a remark that tells the key', () => {
  it('is known from one that only names a colour', () => {
    expect(tellsKey('Amber marks ask for evidence, violet ones are about a word.')).toBe(true);
    expect(tellsKey('Underlined words are slips of spelling.')).toBe(true);
    expect(tellsKey('The green line is missing from the figure; say what it means.')).toBe(false);
    expect(tellsKey('Circle the ones that you kept, and say why you kept them.')).toBe(false);
  });
});

describe('what a remark says by the key of its hand', () => {
  const bare = (stance: 'question' | 'fix') => ({ ...exampleSaying(stance), parts: [] });
  const amber = { kind: 'color', name: 'amber' } as const;

  it('is for a mark without words what the key has for it', () => {
    const remark = exampleRemark({ text: '', color: AMBER });
    expect(asKeyed(bare('question'), remark, [])).toEqual(bare('question'));
    const keyed = asKeyed(bare('question'), remark, [entry(amber)]);
    expect(taskFor('', keyed)).toBe('Give evidence for this');
    expect(keyed).toMatchObject({
      stance: 'fix',
      callsForChange: true,
      because: { kind: 'key', meaning: 'asks for evidence' },
    });
  });

  it('leans to it where the words leave it open, and not where they are plain', () => {
    const text = 'Hm, the dam.';
    const remark = exampleRemark({ text, color: AMBER });
    const with2 = (fix: number) => {
      const said = exampleSaying('note');
      const [part] = said.parts;
      return {
        ...said,
        parts: [{ ...part, to: text.length, likely: { ...part.likely, note: 1 - fix, fix } }],
      };
    };
    expect(asKeyed(with2(0.4), remark, [entry(amber)])).toMatchObject({
      stance: 'fix',
      because: { kind: 'key' },
    });
    expect(asKeyed(with2(0.05), remark, [entry(amber)]).stance).toBe('note');
  });

  it('is for an abbreviation what it means', () => {
    const remark = exampleRemark({ text: 'mq.' });
    const said = exampleSaying('note');
    const short = entry({ kind: 'short', name: 'mq' }, { meaning: 'the moor question' });
    const [part] = said.parts;
    const open = { ...said, parts: [{ ...part, to: 3, likely: { ...part.likely, note: 0.9, fix: 0.1 } }] };
    expect(asKeyed(open, remark, [short]).stance).toBe('fix');
  });

  it('goes by an abbreviation before a colour, that before a kind of mark, and by nothing that means nothing', () => {
    const remark = exampleRemark({ text: 'mq', color: AMBER, kind: 'underline' });
    const mark = entry({ kind: 'mark', name: 'underline' }, { id: 'm' });
    const color = entry(amber, { id: 'c' });
    const short = entry({ kind: 'short', name: 'mq' }, { id: 's' });
    expect(entryFor(remark, [mark, color, short])?.id).toBe('s');
    expect(entryFor(remark, [mark, color])?.id).toBe('c');
    expect(entryFor(remark, [mark, { ...color, meaning: '' }])?.id).toBe('m');
    expect(entryFor(remark, [])).toBeNull();
  });
});
