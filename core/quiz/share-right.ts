import type { DecimalString } from '../model/ids.ts';
import {
  add,
  compare,
  fromDecimal,
  ONE,
  shareOf,
  subtract,
  ZERO,
  type Fraction,
} from '../scores/fraction.ts';
import type { QuizItem } from './question.ts';

/**
 * The share of a response that is as it should be, from 0 to 1; null where there is nothing to compare with.
 * Capitals, white space, a comma for a point and zeros at the end are set aside. Of several choices each right one counts
 * and each wrong one takes as much away; of an order the places that are right, of pairs the right pairs.
 * @param tolerance how far off a number may be
 */
export function shareRight(item: QuizItem, response: readonly string[], tolerance = ZERO): Fraction | null {
  const { kind, correct } = item;
  if (correct.length === 0) return null;
  const wanted = correct.map(plain);
  const given = response.map(plain).filter((one) => one !== '');
  switch (kind) {
    case 'one':
    case 'short':
    case 'long':
      return given.length === 1 && wanted.includes(given[0]) ? ONE : ZERO;
    case 'number':
      return given.length === 1 && wanted.some((one) => isNear(one, given[0], tolerance)) ? ONE : ZERO;
    case 'order':
      return shareOf(wanted.filter((one, index) => one === given[index]).length, wanted.length);
    case 'several':
    case 'pairs': {
      const known = new Set(wanted);
      const answers = [...new Set(given)];
      const right = answers.filter((one) => known.has(one)).length;
      const wrong = kind === 'several' ? answers.length - right : 0;
      return shareOf(Math.max(0, right - wrong), known.size);
    }
  }
}

/** Whether all of a response is as it should be; null where there is nothing to compare with. */
export function isRight(item: QuizItem, response: readonly string[]): boolean | null {
  const share = shareRight(item, response);
  return share === null ? null : compare(share, ONE) === 0;
}

/** A decimal number, with a point or a comma, as a person types it; a unit after it is set aside. */
const NUMBER = /^([+-]?)(\d{1,12})(?:[.,](\d{1,6}))?(?: ?[a-zµ%°].*)?$/;

function numberIn(text: string): Fraction | null {
  const found = NUMBER.exec(text.replace('−', '-'));
  if (found === null) return null;
  const [, sign, whole, part = '0'] = found;
  const size = fromDecimal(`${whole}.${part}` as DecimalString);
  return sign === '-' ? subtract(ZERO, size) : size;
}

function isNear(wanted: string, given: string, tolerance: Fraction): boolean {
  const [x, y] = [numberIn(wanted), numberIn(given)];
  if (x === null || y === null) return wanted === given;
  return compare(subtract(x, tolerance), y) <= 0 && compare(y, add(x, tolerance)) <= 0;
}

function plain(text: string): string {
  return text.normalize('NFKC').trim().replace(/\s+/g, ' ').toLowerCase();
}
