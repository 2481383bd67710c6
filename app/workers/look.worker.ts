import { expose } from 'comlink';
import { LastLook } from '#core/look/look-over.ts';
import { sinceMarked } from '#core/look/since-marked.ts';
import type { Speller } from '#core/look/speller.ts';
import { spellerOf } from '#formats/spelling/english.ts';
import type { LookWorker } from './protocol.ts';

/** Where the application serves its dictionaries (vite.config.ts). */
const DICTIONARIES = ['en', 'en-gb'];

async function textAt(address: string): Promise<string> {
  const answer = await fetch(address);
  if (!answer.ok) throw new Error(`${address} is not there: ${answer.status}`);
  return answer.text();
}

/** null where they can't be reached: whoever asks next tries again. */
async function loaded(): Promise<Speller | null> {
  try {
    const files = DICTIONARIES.map(async (name) => ({
      affixes: await textAt(`/dictionaries/${name}.aff`),
      words: await textAt(`/dictionaries/${name}.dic`),
    }));
    return spellerOf(await Promise.all(files));
  } catch (error) {
    // The network fails with this.
    if (error instanceof TypeError) return null;
    throw error;
  }
}

const held: { look: Promise<LastLook> | null } = { look: null };

async function lookHere(): Promise<LastLook> {
  const speller = await loaded();
  if (speller === null) held.look = null;
  return new LastLook(speller);
}

const worker: LookWorker = {
  async lookOver(paper, { style, ownWords }, marked) {
    held.look ??= lookHere();
    const look = await held.look;
    look.own(ownWords);
    const looked = look.lookOver(paper, style);
    const since = marked === null ? [] : sinceMarked(marked.paper, paper, marked.struck);
    return { ...looked, lines: [...since, ...looked.lines] };
  },
  async suggests(word) {
    return (await held.look)?.suggests(word) ?? [];
  },
};
expose(worker);
