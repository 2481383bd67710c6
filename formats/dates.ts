import { instantOf, type Instant } from '#core/model/ids.ts';

const ISO_DATE = /^\d{4}-\d\d-\d\d(?:T\d\d:\d\d(?::\d\d(?:\.\d+)?)?(?:Z|[+-]\d\d:?\d\d)?)?$/;

/** An ISO 8601 date and time as an instant; null for what is none. Without a zone it counts as UTC. */
export function instantOfIso(text: string | null): Instant | null {
  const found = text === null ? null : ISO_DATE.exec(text.trim());
  if (found === null) return null;
  const [whole] = found;
  const hasZone = /(Z|[+-]\d\d:?\d\d)$/.test(whole);
  const ms = Date.parse(whole.includes('T') && !hasZone ? `${whole}Z` : whole);
  return Number.isNaN(ms) ? null : instantOf(ms);
}
