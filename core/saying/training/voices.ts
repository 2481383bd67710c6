import type { PromisePlace } from '../../model/promises.ts';
import type { Stance } from '../../model/work.ts';

/** One part of a remark, labelled twice. */
export interface LabelledPart {
  readonly text: string;
  readonly stance: Stance;
  /** What it was called the second time, from the bare text, where that was something else: it is open to doubt. */
  readonly doubt: Stance | null;
  /** Where it promises more feedback; null where it doesn't. */
  readonly promise: PromisePlace | null;
  /** Points that it says were lost. */
  readonly points: number | null;
}

/** A remark of a voice, in its parts; its text is theirs, joined by spaces. */
export interface LabelledRemark {
  readonly voice: string;
  readonly parts: readonly LabelledPart[];
}

const STANCE_BY_LETTER: Readonly<Record<string, Stance>> = {
  m: 'must-fix',
  f: 'fix',
  s: 'polish',
  p: 'praise',
  a: 'advice',
  q: 'question',
  r: 'pointer',
  n: 'note',
};

const PART =
  /^([mfspaqrn])(?:\/([mfspaqrn]))?(?:@(paper|recording|criterion|overall|class|other))?(?:=([\d.]+))? (.+)$/;

/**
 * Reads a voice (voices/README.md): a remark a line, its parts set off by " | ", each with its label before it; lines that
 * begin with # say who speaks.
 * @throws Error naming the voice and the line that is no remark
 */
export function readVoice(voice: string, text: string): LabelledRemark[] {
  return text.split('\n').flatMap((line, index) => {
    if (line === '' || line.startsWith('#')) return [];
    const parts = line.split(' | ').map((part) => {
      const found = PART.exec(part);
      if (found === null) throw new Error(`voice ${voice}, line ${index + 1}: “${part}” has no label`);
      const [, stance, doubt, promise, points, words] = found as unknown as (string | undefined)[];
      return {
        text: words ?? '',
        stance: STANCE_BY_LETTER[stance ?? ''],
        doubt: doubt === undefined ? null : STANCE_BY_LETTER[doubt],
        promise: (promise as PromisePlace | undefined) ?? null,
        points: points === undefined ? null : Number(points),
      };
    });
    return [{ voice, parts }];
  });
}

/** A remark's whole text. */
export function textOf({ parts }: LabelledRemark): string {
  return parts.map(({ text }) => text).join(' ');
}
