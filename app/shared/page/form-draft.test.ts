import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { fitted } from './form-draft.ts';

const form = {
  title: '',
  weighted: false,
  rules: { kind: 'latest', percent: '' },
  rows: [{ name: '', points: '' }],
  steps: [] as unknown[],
};

describe('what was typed into a form', () => {
  it('is put back as it was', () => {
    const typed = {
      title: 'Own course',
      weighted: true,
      rules: { kind: 'capped', percent: '85' },
      rows: [
        { name: 'Labs', points: '3' },
        { name: 'Reports', points: '' },
      ],
      steps: [{ from: '50' }],
    };
    expect(fitted(typed, form)).toEqual(typed);
    expect(fitted({ ...typed, rows: [] }, form)).toEqual({ ...typed, rows: [] });
  });

  it('is put back as far as it fits a form that has changed since', () => {
    const typed = {
      title: 5,
      weighted: 'yes',
      rules: { kind: 'best' },
      rows: [{ name: 'Labs' }, null],
      gone: 'x',
    };
    expect(fitted(typed, form)).toEqual({
      title: '',
      weighted: false,
      rules: { kind: 'best', percent: '' },
      rows: [
        { name: 'Labs', points: '' },
        { name: '', points: '' },
      ],
      steps: [],
    });
    expect(fitted({ rules: 'latest', rows: { name: 'Labs' } }, form)).toEqual(form);
  });

  it('always has the shape of the form', () => {
    fc.assert(
      fc.property(fc.anything(), (stored) => {
        const found = fitted(stored, form) as typeof form;
        expect(Object.keys(found)).toEqual(Object.keys(form));
        expect([typeof found.title, typeof found.weighted, typeof found.rules.percent]).toEqual([
          'string',
          'boolean',
          'string',
        ]);
        for (const { name, points } of found.rows)
          expect([typeof name, typeof points]).toEqual(['string', 'string']);
      }),
    );
  });
});
