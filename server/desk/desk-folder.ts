import { randomBytes, scryptSync, timingSafeEqual } from 'node:crypto';
import {
  existsSync,
  mkdirSync,
  readFileSync,
  renameSync,
  writeFileSync,
  openSync,
  fsyncSync,
  closeSync,
} from 'node:fs';
import { join } from 'node:path';
import * as v from 'valibot';
import { MarkingRules } from '../marker/marking-rules.ts';
import { DESK_STATE_VERSION, DeskState, type DeskContent } from './desk-state.ts';
import { KeptQuiz } from './quiz.ts';
import { uploadsIn, type Uploads } from './uploads.ts';

const STATE = 'desk.json';
const CODE_BYTES = 5;
const ALPHABET = '23456789ABCDEFGHJKMNPQRSTVWXYZ';

/** The desk's state and files in a folder. Each change is written whole beside the old one and then put in its place. */
export interface DeskFolder {
  readonly state: DeskState;
  /** Changes the state and writes it; nothing is changed in memory when writing fails. */
  update(change: (state: DeskState) => DeskState): void;
  pathOfFile(hash: string): string | null;
  putFile(hash: string, bytes: Uint8Array): void;
  /** Files that are on their way in. */
  readonly uploads: Uploads;
  codeFits(code: string): boolean;
}

function writeAtomically(path: string, content: Uint8Array | string): void {
  const temporary = `${path}.${randomBytes(4).toString('hex')}.new`;
  writeFileSync(temporary, content);
  const handle = openSync(temporary, 'r');
  fsyncSync(handle);
  closeSync(handle);
  renameSync(temporary, path);
}

function hashCode(code: string, salt: string): string {
  return scryptSync(code.trim().toUpperCase(), salt, 32).toString('hex');
}

/** A code that can be read out and typed. */
export function newAccessCode(): string {
  const letters = Array.from(randomBytes(CODE_BYTES * 2), (byte) => ALPHABET[byte % ALPHABET.length]);
  return `${letters.slice(0, CODE_BYTES).join('')}-${letters.slice(CODE_BYTES).join('')}`;
}

/** Fills an empty folder with a desk's first content. */
export function createDesk(folder: string, content: DeskContent, accessCode: string): void {
  mkdirSync(join(folder, 'files'), { recursive: true });
  for (const [hash, bytes] of content.files) writeAtomically(join(folder, 'files', hash), bytes);
  const salt = randomBytes(16).toString('hex');
  const state: DeskState = {
    version: DESK_STATE_VERSION,
    deskId: content.deskId,
    deskName: content.deskName,
    student: content.student,
    code: { salt, hash: hashCode(accessCode, salt) },
    dayZero: content.dayZero,
    facts: [...content.facts],
    rubrics: [...content.rubrics],
    markingRules: v.parse(MarkingRules, content.markingRules),
    quizzes: v.parse(v.record(v.string(), KeptQuiz), content.quizzes),
    library: [...content.library],
    sittings: [],
    sessions: [],
    attemptByKey: {},
    askedByKey: {},
  };
  writeAtomically(join(folder, STATE), JSON.stringify(state));
}

export function deskExists(folder: string): boolean {
  return existsSync(join(folder, STATE));
}

/** Opens a desk's folder. Throws where its state was damaged or written by a newer version. */
export function openDesk(folder: string): DeskFolder {
  let state = v.parse(DeskState, JSON.parse(readFileSync(join(folder, STATE), 'utf8')));
  return {
    get state() {
      return state;
    },
    update(change) {
      const next = change(state);
      writeAtomically(join(folder, STATE), JSON.stringify(next));
      state = next;
    },
    pathOfFile(hash) {
      const path = join(folder, 'files', hash);
      return /^[0-9a-f]{64}$/.test(hash) && existsSync(path) ? path : null;
    },
    putFile(hash, bytes) {
      writeAtomically(join(folder, 'files', hash), bytes);
    },
    uploads: uploadsIn(join(folder, 'uploads'), join(folder, 'files')),
    codeFits(code) {
      const given = Buffer.from(hashCode(code, state.code.salt), 'hex');
      return timingSafeEqual(given, Buffer.from(state.code.hash, 'hex'));
    },
  };
}
