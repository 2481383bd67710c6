import type { RequestHandler } from 'express';
import { parseArgs } from 'node:util';

/** What of the desk can be set for a try: docs/course-desk.md. */
export interface Trial {
  /** How far its clock is ahead. */
  readonly aheadMs: number;
  /** How long each of its answers takes. */
  readonly slowMs: number;
  /** How long after an attempt its marker looks at it; null: as its rules say. */
  readonly markedAfterSeconds: number | null;
  readonly refuses: Refusal;
}

/** Attempts and uploads are refused, as when it is down or by a rule; or nothing is. */
const refusals = ['nothing', 'sending', 'attempts'] as const;
type Refusal = (typeof refusals)[number];

export const NO_TRIAL: Trial = { aheadMs: 0, slowMs: 0, markedAfterSeconds: null, refuses: 'nothing' };

const UNIT_MS: Readonly<Record<string, number>> = { s: 1000, m: 60_000, h: 3_600_000, d: 86_400_000 };

/** A time such as 90s, 5m, 12h or 9d, in milliseconds. */
function spanOf(name: string, given: string): number {
  const read = /^(\d{1,6})([smhd])$/.exec(given);
  if (read === null)
    throw new UnknownTrial(`--${name} takes a time such as 90s, 5m, 12h or 9d, not “${given}”.`);
  return Number(read[1]) * UNIT_MS[read[2]];
}

/** An option that can't be taken; its message says what is. */
export class UnknownTrial extends Error {}

export interface StartOptions {
  readonly newDemo: boolean;
  readonly trial: Trial;
}

/**
 * What the server is started with.
 * @throws UnknownTrial
 */
export function startOptions(args: readonly string[]): StartOptions {
  const values = valuesOf(args);
  const refuses = refusals.find((one) => one === (values.refuse ?? 'nothing'));
  if (refuses === undefined)
    throw new UnknownTrial(`--refuse takes “sending” or “attempts”, not “${values.refuse}”.`);
  return {
    newDemo: values['new-demo'],
    trial: {
      aheadMs: spanOf('clock-ahead', values['clock-ahead'] ?? '0s'),
      slowMs: spanOf('slow', values.slow ?? '0s'),
      markedAfterSeconds:
        values['marked-after'] === undefined ? null : spanOf('marked-after', values['marked-after']) / 1000,
      refuses,
    },
  };
}

function valuesOf(args: readonly string[]) {
  try {
    return parseArgs({
      args: [...args],
      options: {
        'new-demo': { type: 'boolean', default: false },
        'clock-ahead': { type: 'string' },
        slow: { type: 'string' },
        'marked-after': { type: 'string' },
        refuse: { type: 'string' },
      },
    }).values;
  } catch (error) {
    if (!(error instanceof Error && 'code' in error && String(error.code).startsWith('ERR_PARSE_ARGS')))
      throw error;
    throw new UnknownTrial(
      `${error.message.split('. ')[0]}. The options are --new-demo, --clock-ahead, --slow, --marked-after and --refuse.`,
    );
  }
}

/** Answers late, and refuses what is to be refused: 503 as a desk that is down, 409 as a rule. */
export function trying({ slowMs, refuses }: Trial): RequestHandler {
  return (request, response, next) => {
    const isUpload = request.method === 'PUT';
    const isAttempt = request.method === 'POST' && request.path.endsWith('/attempts');
    const answer = () => {
      if (refuses === 'sending' && (isUpload || isAttempt))
        response.status(503).json({ error: 'The course desk takes nothing in at the moment.' });
      else if (refuses === 'attempts' && isAttempt)
        response.status(409).json({ error: 'The course desk takes no attempt at this assignment.' });
      else next();
    };
    if (slowMs === 0) answer();
    else setTimeout(answer, slowMs);
  };
}
