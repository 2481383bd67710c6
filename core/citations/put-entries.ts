import type { DraftContent } from '../model/work.ts';
import type { Paper } from '../paper/paper.ts';
import { entryFormOf, entryText } from './entry-text.ts';
import { citedIn, leadsToEntry } from './findings.ts';
import { foldedWords } from './names.ts';
import { entryOf, isReferenceHeading, referenceListOf } from './references.ts';
import type { WorkListed } from './work-listed.ts';

/** A work out of a file as an entry of a paper's list. */
export interface ProposedEntry {
  readonly text: string;
  /** `listed`: it stands there by now; `cited`: the text names it, the list doesn't; `new`: neither. */
  readonly state: 'listed' | 'cited' | 'new';
}

/** Works as entries in the form of a paper's list, those that the text waits for first. */
export function proposeEntries(paper: Paper, works: readonly WorkListed[]): ProposedEntry[] {
  const list = referenceListOf(paper);
  const entries = list?.entries ?? [];
  const form = entryFormOf(paper);
  const citations = citedIn(paper, list);
  const titles = entries.map(({ from, to }) => foldedWords(paper.text.slice(from, to)));
  const wordsOf = (work: WorkListed) => entryText(work, { ...form, number: null }, null);
  const proposed = works.map((work) => {
    const text = wordsOf(work);
    const entry = entryOf(text, { from: 0, to: text.length });
    const title = foldedWords(work.title);
    const isListed = titles.some((one) => title.trim() !== '' && one.includes(title));
    const isCited = citations.some((one) => one.numbers.length === 0 && leadsToEntry(one, entry));
    return { text, state: isListed ? 'listed' : isCited ? 'cited' : 'new' } as const;
  });
  const rank = { cited: 0, new: 1, listed: 2 };
  return proposed.sort((x, y) => rank[x.state] - rank[y.state]);
}

type Json = Record<string, unknown>;
const childrenOf = ({ content }: Json): Json[] => (Array.isArray(content) ? (content as Json[]) : []);

function textOf(node: Json): string {
  return typeof node.text === 'string' ? node.text : childrenOf(node).map(textOf).join('');
}

const NUMBERED = /^(\[?)(\d+)(\]|[.)])\s/;

/** A node like another with these words in it. */
function likeIt(node: Json, text: string): Json {
  if (node.type === 'listItem')
    return { ...node, content: [{ type: 'paragraph', content: [{ type: 'text', text }] }] };
  return { ...node, content: [{ type: 'text', text }] };
}

const sortKey = (text: string) => foldedWords(text.replace(NUMBERED, '')).trim();

/** The entries with new ones among them: by the alphabet, or at the end where they are numbered. */
function among(nodes: readonly Json[], added: readonly string[]): Json[] {
  const result = [...nodes];
  const numbers = nodes.map((node) => NUMBERED.exec(textOf(node)));
  const numbered = numbers.at(0) ?? null;
  const like = nodes.find((node) => textOf(node) !== '') ?? { type: 'paragraph' };
  if (numbered !== null) {
    let last = Math.max(...numbers.map((number) => Number(number?.[2] ?? 0)));
    for (const text of added) result.push(likeIt(like, `${numbered[1]}${++last}${numbered[3]} ${text}`));
    return result;
  }
  for (const text of added) {
    const before = result.findIndex((node) => sortKey(textOf(node)).localeCompare(sortKey(text)) > 0);
    const at = before < 0 || like.type === 'listItem' ? result.length : before;
    result.splice(at, 0, likeIt(like, text));
  }
  return result;
}

/**
 * A draft with entries put into its list of references: where the alphabet puts them, or numbered on; a draft without a list
 * gets one at its end.
 * @param texts the entries, without numbers
 * @param heading of a list that is begun
 */
export function withEntries(content: DraftContent, texts: readonly string[], heading: string): DraftContent {
  const nodes = childrenOf(content.doc);
  const at = nodes.findLastIndex((node) => node.type === 'heading' && isReferenceHeading(textOf(node)));
  const put = (all: readonly Json[]): DraftContent => ({ ...content, doc: { ...content.doc, content: all } });
  if (at < 0) {
    const begun = { type: 'heading', attrs: { level: 1 }, content: [{ type: 'text', text: heading }] };
    return put([...nodes, begun, ...among([], texts)]);
  }
  const next = nodes.findIndex((node, i) => i > at && node.type === 'heading');
  const end = next < 0 ? nodes.length : next;
  const within = nodes.slice(at + 1, end);
  const list = within.findLastIndex(({ type }) => type === 'orderedList' || type === 'bulletList');
  const listed =
    list < 0
      ? among(within, texts)
      : within.map((node, i) => (i === list ? { ...node, content: among(childrenOf(node), texts) } : node));
  return put([...nodes.slice(0, at + 1), ...listed, ...nodes.slice(end)]);
}
