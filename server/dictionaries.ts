import { readFile } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import type { Speller } from '#core/look/speller.ts';
import { spellerOf } from '#formats/spelling/english.ts';

const NAMES = ['dictionary-en', 'dictionary-en-gb'];

/** What knows English as it is spelt on both sides of the sea. */
export async function englishSpeller(): Promise<Speller> {
  const files = NAMES.map(async (name) => {
    const folder = dirname(fileURLToPath(import.meta.resolve(name)));
    const [affixes, words] = await Promise.all(
      ['index.aff', 'index.dic'].map((file) => readFile(join(folder, file), 'utf8')),
    );
    return { affixes, words };
  });
  return spellerOf(await Promise.all(files));
}
