import { describe, expect, it } from 'vitest';
import { daysUntil, shownDay, shownMoment, shownPercent } from './shown.ts';

const at = (text: string) => text as never;

describe('what is shown', () => {
  it('shows times in the zone of the course', () => {
    expect(shownMoment(at('2026-11-11T18:00:00.000Z'), 'Europe/London')).toBe('Wed 11 Nov 18:00');
    expect(shownMoment(at('2026-07-11T18:00:00.000Z'), 'Europe/London')).toBe('Sat 11 Jul 19:00');
    expect(shownDay(at('2026-11-11T23:30:00.000Z'), 'Asia/Tokyo')).toBe('Thu 12 Nov');
  });

  it('counts whole days, and none below zero', () => {
    const now = Date.parse('2026-11-02T10:00:00Z');
    expect(daysUntil(at('2026-11-11T18:00:00.000Z'), now)).toBe(9);
    expect(daysUntil(at('2026-11-03T09:59:00.000Z'), now)).toBe(0);
    expect(daysUntil(at('2026-10-03T09:59:00.000Z'), now)).toBe(0);
  });

  it('shows shares as percentages without needless places', () => {
    expect([shownPercent('0.85'), shownPercent('0.333'), shownPercent('1')]).toEqual(['85', '33.3', '100']);
  });
});
