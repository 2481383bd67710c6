import { instantOfIso } from '../dates.ts';
import type { TrackedChange } from '../text/layout-writer.ts';
import { parseXml } from '../xml/parse-xml.ts';
import { spacesOf } from './spaces.ts';

/** A tracked change as the text refers to it. */
export interface ChangedRegion {
  readonly change: TrackedChange;
  /** The words that a deletion took out. */
  readonly words: string;
}

const REGION_KINDS: Readonly<Record<string, TrackedChange['kind']>> = {
  'text:insertion': 'insertion',
  'text:deletion': 'deletion',
  'text:format-change': 'format',
};

/** The tracked changes that the text refers to, by their id. */
export function readChanges(xml: string): Map<string, ChangedRegion> {
  const regions = new Map<string, ChangedRegion>();
  let id: string | null = null;
  let kind: TrackedChange['kind'] | null = null;
  let author = '';
  let at = '';
  let words: string[] = [];
  let listening: 'author' | 'date' | 'words' | null = null;
  let inRegions = false;
  parseXml(xml, {
    open: (name, attributes) => {
      if (name === 'text:tracked-changes') inRegions = true;
      if (!inRegions) return;
      if (name === 'text:changed-region') {
        id = attributes['text:id'] ?? attributes['xml:id'] ?? null;
        [kind, author, at, words] = [null, '', '', []];
      }
      kind = REGION_KINDS[name] ?? kind;
      if (name === 'dc:creator') listening = 'author';
      else if (name === 'dc:date') listening = 'date';
      else if (name === 'text:p' || name === 'text:h') {
        words.push('');
        listening = 'words';
      } else if (name === 'text:s' && words.length > 0)
        words[words.length - 1] += ' '.repeat(spacesOf(attributes));
    },
    text: (text) => {
      if (listening === 'author') author += text;
      if (listening === 'date') at += text;
      if (listening === 'words') words[words.length - 1] += text;
    },
    close: (name) => {
      if (name === 'text:tracked-changes') inRegions = false;
      if (['dc:creator', 'dc:date', 'text:p', 'text:h'].includes(name)) listening = null;
      if (name !== 'text:changed-region' || id === null || kind === null) return;
      regions.set(id, { change: { kind, author, at: instantOfIso(at) }, words: words.join(' ') });
    },
  });
  return regions;
}
