import { describe, expect, it } from 'vitest';
import { TERM_ABBREVIATIONS } from './abbreviations.ts';
import { fieldOf } from './field.ts';
import { firstRuleReferences, referenceFor, ruleReferencesWith } from './rules.ts';
import { termsIn } from './terms-in.ts';
import { termOf, TERMS } from './terms.ts';

describe('marking terms', () => {
  it('are sixty at least, each explained with an example, and no name stands for two', () => {
    expect(TERMS.length).toBeGreaterThanOrEqual(60);
    const names = TERMS.flatMap(({ term, also }) => [term, ...also]);
    expect(new Set(names).size).toBe(names.length);
    for (const { explanation, example, meaning } of TERMS)
      expect([explanation, example, meaning].every((text) => text.length > 5)).toBe(true);
  });

  it('have every abbreviation among those that short marks are known by', () => {
    const short = TERMS.flatMap(({ also }) => also).filter((name) => name.length <= 6 && !name.includes(' '));
    expect([...TERM_ABBREVIATIONS].sort()).toEqual([...new Set(short)].sort());
  });

  it('are known by abbreviations, with or without a stop', () => {
    expect(termOf('Awk.')?.term).toBe('awkward');
    expect(termOf('R/O')?.term).toBe('run-on sentence');
    expect(termOf('bog')).toBeNull();
  });

  it('are found alone, set off at the beginning, and long ones anywhere; plain words of a sentence are none', () => {
    const found = (text: string) =>
      termsIn(text).map(({ from, to, term }) => [text.slice(from, to), term.term]);
    expect(found('awk.')).toEqual([['awk', 'awkward']]);
    expect(found('frag: join it with the next')).toEqual([['frag', 'fragment']]);
    expect(found('This is a dangling modifier, and here is a comma splice.')).toEqual([
      ['dangling modifier', 'dangling modifier'],
      ['comma splice', 'comma splice'],
    ]);
    expect(found('The control of the dam needs evidence.')).toEqual([]);
    expect(found('Evidence?')).toEqual([]);
    expect(found('evidence')).toEqual([['evidence', 'evidence']]);
  });

  it('have those that the student explained among them', () => {
    const own = { term: 'mooring', also: [], meaning: '', explanation: 'Ours.', example: '', byField: {} };
    expect(termsIn('No mooring here.', [own]).map(({ term }) => term.explanation)).toEqual(['Ours.']);
  });

  it('have examples of a course’s own field', () => {
    expect(fieldOf('Bog Hydrology')).toBe('science');
    expect(fieldOf('Commons, Law and Community')).toBe('law');
    expect(fieldOf('Welding')).toBeNull();
  });
});

describe('rule references', () => {
  it('begin with forty, and are found by whatever a machine calls the rule', () => {
    expect(firstRuleReferences).toHaveLength(40);
    const titleFor = (rule: string, said = '') =>
      referenceFor(rule, said, firstRuleReferences)?.title ?? null;
    expect(titleFor('COMMA_SPLICE')).toBe('Two sentences and a comma');
    expect(titleFor('subjectVerbAgreement')).toBe('Verb and subject');
    expect(titleFor('E0112', 'Possible spelling mistake found.')).toBe('The spelling');
    expect(titleFor('X9', 'Nothing that is known.')).toBeNull();
  });

  it('are as the student left them: changed, removed, added', () => {
    const [first, second] = firstRuleReferences;
    const own = { ...first, id: 'own/1', rule: 'HOUSE_1', title: 'Our own' };
    const list = ruleReferencesWith([{ ...first, page: '12' }, { ...second, title: '' }, own]);
    expect(list).toHaveLength(40);
    expect(list[0].page).toBe('12');
    expect(list.some(({ id }) => id === second.id)).toBe(false);
    expect(referenceFor('house-1', '', list)?.title).toBe('Our own');
  });
});
