import * as v from 'valibot';
import { plugins } from '@citation-js/core';
import '@citation-js/plugin-bibtex';
import type { WorkListed } from '#core/citations/work-listed.ts';
import { UnreadableFile } from '../unreadable.ts';

const Text = v.optional(v.union([v.string(), v.pipe(v.number(), v.transform(String))]), '');
const Name = v.looseObject({
  family: Text,
  given: Text,
  literal: Text,
  'non-dropping-particle': Text,
});
const Item = v.looseObject({
  author: v.optional(v.array(Name), []),
  editor: v.optional(v.array(Name), []),
  title: Text,
  'container-title': Text,
  issued: v.optional(
    v.looseObject({
      'date-parts': v.optional(v.array(v.array(v.union([v.string(), v.number()])))),
      literal: Text,
      raw: Text,
    }),
  ),
  volume: Text,
  issue: Text,
  page: Text,
  publisher: Text,
  'publisher-place': Text,
  DOI: Text,
  URL: Text,
});
const Items = v.array(Item);
type CslItem = v.InferOutput<typeof Item>;

const FOUR_DIGITS = /\d{4}/;

function nameOf({ family, given, literal, 'non-dropping-particle': particle }: v.InferOutput<typeof Name>) {
  const full = [particle, family].filter((part) => part !== '').join(' ');
  return { family: full === '' ? literal : full, given };
}

function workOf(item: CslItem): WorkListed {
  const { issued } = item;
  const dated =
    issued === undefined ? '' : `${issued['date-parts']?.at(0)?.at(0) ?? ''} ${issued.literal} ${issued.raw}`;
  return {
    authors: (item.author.length > 0 ? item.author : item.editor)
      .map(nameOf)
      .filter(({ family }) => family !== ''),
    title: item.title,
    within: item['container-title'],
    year: FOUR_DIGITS.exec(dated)?.[0] ?? '',
    volume: item.volume,
    issue: item.issue,
    pages: item.page,
    publisher: item.publisher,
    town: item['publisher-place'],
    address:
      item.DOI === ''
        ? item.URL
        : `https://doi.org/${item.DOI.replace(/^https?:\/\/(?:dx\.)?doi\.org\//, '')}`,
  };
}

/** What JSON.parse and the readers of BibTeX throw. */
function itemsOf(text: string): unknown {
  const isJson = /^\s*[[{]/.test(text);
  try {
    if (!isJson) return plugins.input.chain(text, { forceType: '@bibtex/text', generateGraph: false });
    const given: unknown = JSON.parse(text);
    return Array.isArray(given) ? given : [given];
  } catch (error) {
    // Both say where, in the first line of what they say.
    throw new UnreadableFile(
      'damaged references',
      error instanceof Error ? error.message.split('\n')[0] : '',
    );
  }
}

/**
 * Reads works from a file of references: BibTeX (as LaTeX takes it), or CSL-JSON (the Citation Style Language's input).
 * @throws UnreadableFile 'damaged references', with where, and 'no references' for a file that lists none
 */
export function readReferences(text: string): WorkListed[] {
  if (!/^\s*[[{]/.test(text) && !/@\s*\w+\s*[{(]/.test(text)) throw new UnreadableFile('no references');
  const items = v.safeParse(Items, itemsOf(text));
  if (!items.success) throw new UnreadableFile('no references');
  const works = items.output.map(workOf).filter(({ title, authors }) => title !== '' || authors.length > 0);
  if (works.length === 0) throw new UnreadableFile('no references');
  return works;
}
