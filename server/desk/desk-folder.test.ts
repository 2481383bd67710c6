import {
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  utimesSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { buildDesk } from '#demo/build-desk.ts';
import { createDesk, deskExists, newAccessCode, openDesk } from './desk-folder.ts';

const content = await buildDesk('2026-11-02');
let folder = '';
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'juncture-folder-'));
});
afterEach(() => rmSync(folder, { recursive: true, force: true }));

describe('a desk’s folder', () => {
  it('comes back as it was left', () => {
    expect(deskExists(folder)).toBe(false);
    createDesk(folder, content, 'SOME-CODES');
    openDesk(folder).update((state) => ({ ...state, attemptByKey: { key: 'attempt' } }));
    const again = openDesk(folder);
    expect(deskExists(folder)).toBe(true);
    expect(again.state.attemptByKey).toEqual({ key: 'attempt' });
    expect(again.state.dayZero).toBe('2026-11-02');
    expect(readdirSync(folder).filter((name) => name.endsWith('.new'))).toEqual([]);
  });

  it('keeps the access code only as a hash, and knows it again in any case', () => {
    createDesk(folder, content, 'SOME-CODES');
    const desk = openDesk(folder);
    expect(readFileSync(join(folder, 'desk.json'), 'utf8')).not.toContain('SOME-CODES');
    expect([desk.codeFits(' some-codes '), desk.codeFits('OTHER'), desk.codeFits('')]).toEqual([
      true,
      false,
      false,
    ]);
  });

  it('changes nothing when a change fails', () => {
    createDesk(folder, content, 'SOME-CODES');
    const desk = openDesk(folder);
    const before = desk.state;
    expect(() =>
      desk.update(() => {
        throw new Error('half-way');
      }),
    ).toThrow('half-way');
    expect(desk.state).toBe(before);
    expect(openDesk(folder).state).toEqual(before);
  });

  it('gives out files by their hash alone', () => {
    createDesk(folder, content, 'SOME-CODES');
    const desk = openDesk(folder);
    const [hash] = [...content.files.keys()];
    expect(desk.pathOfFile(hash)).toBe(join(folder, 'files', hash));
    for (const wrong of ['', '../desk.json', 'f'.repeat(64), hash.toUpperCase()])
      expect(desk.pathOfFile(wrong)).toBeNull();
  });

  it('refuses a state that was damaged', () => {
    createDesk(folder, content, 'SOME-CODES');
    writeFileSync(join(folder, 'desk.json'), '{"version": 1, "facts": "none"}');
    expect(() => openDesk(folder)).toThrow();
  });

  it('makes access codes that can be read out', () => {
    const codes = Array.from({ length: 50 }, newAccessCode);
    expect(new Set(codes).size).toBe(50);
    for (const code of codes) expect(code).toMatch(/^[2-9A-HJKMNP-TV-Z]{5}-[2-9A-HJKMNP-TV-Z]{5}$/);
  });

  it('takes away what nobody sent on for a month, and keeps what is on its way', () => {
    createDesk(folder, content, 'SOME-CODES');
    const uploads = join(folder, 'uploads');
    mkdirSync(uploads);
    const [old, young] = ['a', 'b'].map((letter) => join(uploads, `${letter.repeat(64)}.part`));
    for (const path of [old, young]) writeFileSync(path, 'part');
    const longAgo = new Date(Date.now() - 31 * 86_400_000);
    utimesSync(old, longAgo, longAgo);
    openDesk(folder);
    expect([existsSync(old), existsSync(young)]).toEqual([false, true]);
  });
});
