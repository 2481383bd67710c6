import { describe, expect, it } from 'vitest';
import { assignmentState, contradictionsIn, type StateFacts } from './assignment-state.ts';

const NOW = 1000;
const facts = (given: Partial<StateFacts> = {}): StateFacts => ({
  opensAt: 0,
  dueAt: 2000,
  closesAt: null,
  attemptsAllowed: 1,
  excused: false,
  draftBegun: false,
  attempts: [],
  markedUnsent: false,
  now: NOW,
  ...given,
});
const sent = (number: number, marking: { at: number; complete: boolean } | null = null) => ({
  number,
  at: 500 + number,
  marking,
});
const marked = { at: 900, complete: true };
const state = (given: Partial<StateFacts>) => assignmentState(facts(given)).kind;

describe('the state of an assignment', () => {
  it.each([
    ['not open yet', { opensAt: 1500 }],
    ['open, nothing sent', {}],
    ['draft begun', { draftBegun: true }],
    ['closed', { dueAt: 900 }],
    ['open, nothing sent', { dueAt: 900, closesAt: 1100 }],
    ['excused', { excused: true, attempts: [sent(1)] }],
    ['waiting to be marked', { attempts: [sent(1)] }],
    ['waiting to be marked', { attempts: [sent(1), sent(2)], attemptsAllowed: 2 }],
    ['part marked', { attempts: [sent(1, { at: 900, complete: false })] }],
    ['finished', { attempts: [sent(1, marked)] }],
    ['finished', { attempts: [sent(1, marked)], closesAt: 1100 }],
    ['open for another attempt', { attempts: [sent(1, marked)], closesAt: 1100, attemptsAllowed: 2 }],
    ['finished', { attempts: [sent(1, marked)], closesAt: 900, attemptsAllowed: 2 }],
    ['waiting again', { attempts: [sent(1, marked), sent(2)], closesAt: 1100, attemptsAllowed: 3 }],
  ] as const)('is %j by its facts', (kind, given) => {
    expect(state(given)).toBe(kind);
  });

  it('tells facts that don’t fit together', () => {
    expect(contradictionsIn(facts({ markedUnsent: true }))).toEqual(['score without attempt']);
    expect(contradictionsIn(facts({ excused: true, attempts: [sent(1, marked)] }))).toEqual([
      'excused but marked',
    ]);
    expect(contradictionsIn(facts({ attempts: [sent(1, { at: 100, complete: true })] }))).toEqual([
      'marked before sent',
    ]);
    expect(contradictionsIn(facts({ attempts: [sent(1, marked)] }))).toEqual([]);
    expect(state({ markedUnsent: true })).toBe('finished');
  });
});
