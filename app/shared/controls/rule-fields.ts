import * as v from 'valibot';
import type { AttemptPolicy, LateRule } from '#core/model/facts.ts';
import { decimalIn, type DecimalString } from '#core/model/ids.ts';
import { HUNDRED, divide, fromDecimal, multiply, toDecimal } from '#core/scores/fraction.ts';
import { shownPercent } from '../shown/shown.ts';
import * as words from '../../words/en.ts';

/** Fields of forms as text, and what they mean. */

const said = words.standing.form;

/** Text of a number field; '' is none. */
export const numberText = v.pipe(
  v.string(),
  v.check((text) => text.trim() === '' || decimalIn(text) !== null, said.numberWanted),
  v.check((text) => Number(decimalIn(text) ?? '0') >= 0, said.notNegative),
);

export const wholeText = v.pipe(
  v.string(),
  v.check((text) => /^\s*\d{1,3}\s*$/.test(text), said.wholeWanted),
);

const percentText = v.pipe(
  v.string(),
  v.check((text) => {
    const number = decimalIn(text);
    return number !== null && Number(number) >= 0 && Number(number) <= 100;
  }, said.percentWanted),
);

/** '' or a time on a wall, as a field for date and time gives it. */
export const wallText = v.pipe(
  v.string(),
  v.check((text) => text === '' || /^\d{4}-\d\d-\d\dT\d\d:\d\d/.test(text), said.dateWrong),
);

export function shareOfPercent(text: string): DecimalString {
  return toDecimal(divide(fromDecimal(decimalIn(text) ?? ('0' as DecimalString)), HUNDRED));
}

/** A share as per cent for a field, with all its places. */
export function percentOfShare(share: DecimalString): string {
  return toDecimal(multiply(fromDecimal(share), HUNDRED));
}

export const policyKinds = ['latest', 'best', 'mean', 'capped', 'recover'] as const;

/** How several attempts count, as fields. '' stands for "as in the course". */
export const PolicyFields = v.pipe(
  v.object({
    policy: v.picklist(['', ...policyKinds]),
    percent: v.string(),
    late: v.picklist(['', 'none', 'own']),
    graceHours: numberText,
    pointsPerDay: numberText,
    maxPoints: numberText,
  }),
  v.forward(
    v.partialCheck(
      [['policy'], ['percent']],
      ({ policy, percent }) => (policy !== 'capped' && policy !== 'recover') || v.is(percentText, percent),
      said.percentWanted,
    ),
    ['percent'],
  ),
  v.forward(
    v.partialCheck(
      [['late'], ['pointsPerDay']],
      ({ late, pointsPerDay }) => late !== 'own' || decimalIn(pointsPerDay) !== null,
      said.numberWanted,
    ),
    ['pointsPerDay'],
  ),
);
export type PolicyFields = v.InferOutput<typeof PolicyFields>;

export function policyFields(policy: AttemptPolicy | null, late: LateRule | null): PolicyFields {
  const share = policy?.kind === 'capped' ? policy.cap : policy?.kind === 'recover' ? policy.share : null;
  const free = late !== null && fromDecimal(late.pointsPerDay).n === 0n;
  return {
    policy: policy?.kind ?? '',
    percent: share === null ? '' : percentOfShare(share),
    late: late === null ? '' : free ? 'none' : 'own',
    graceHours: late === null || free ? '' : String(late.graceHours),
    pointsPerDay: late === null || free ? '' : late.pointsPerDay,
    maxPoints: late?.maxPoints ?? '',
  };
}

export function policyOfFields({ policy, percent }: PolicyFields): AttemptPolicy | null {
  switch (policy) {
    case '':
      return null;
    case 'capped':
      return { kind: policy, cap: shareOfPercent(percent) };
    case 'recover':
      return { kind: policy, share: shareOfPercent(percent) };
    case 'latest':
    case 'best':
    case 'mean':
      return { kind: policy };
  }
}

const NOTHING_OFF: LateRule = { graceHours: 0, pointsPerDay: '0' as DecimalString, maxPoints: null };

export function lateOfFields({ late, graceHours, pointsPerDay, maxPoints }: PolicyFields): LateRule | null {
  const perDay = decimalIn(pointsPerDay);
  if (late === '') return null;
  if (late === 'none' || perDay === null) return NOTHING_OFF;
  return {
    graceHours: Number(decimalIn(graceHours) ?? '0'),
    pointsPerDay: perDay,
    maxPoints: decimalIn(maxPoints),
  };
}

/** A policy in few words, for "as in the course". */
export function policyInWords(policy: AttemptPolicy | null): string {
  const kind = policy?.kind ?? 'latest';
  const share = policy?.kind === 'capped' ? policy.cap : policy?.kind === 'recover' ? policy.share : null;
  return said.policies[kind] + (share === null ? '' : ` (${shownPercent(share)} %)`);
}

export function lateInWords(late: LateRule | null): string {
  if (late === null || fromDecimal(late.pointsPerDay).n === 0n) return said.lateKinds.none;
  return said.lateRule(late.pointsPerDay, String(late.graceHours));
}
