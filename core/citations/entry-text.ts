import type { Paper } from '../paper/paper.ts';
import type { CitingStyle } from '../model/look.ts';
import { citingStyleOf } from './findings.ts';
import { referenceListOf } from './references.ts';
import type { WorkListed, WorkName } from './work-listed.ts';

/** How the entries of a paper's list are written. */
export interface EntryForm {
  readonly style: CitingStyle;
  /** Whether the year stands in brackets behind the authors. */
  readonly yearInBrackets: boolean;
  readonly and: 'and' | '&';
  /** How numbers are set: "[3]" or "3."; null where entries have none. */
  readonly number: '[n]' | 'n.' | null;
}

/** How entries are written in a paper, as its own ones show; the usual form of its style where there are none. */
export function entryFormOf(paper: Paper): EntryForm {
  const list = referenceListOf(paper);
  const texts = (list?.entries ?? []).map(({ from, to }) => paper.text.slice(from, to));
  const most = (pattern: RegExp) => 2 * texts.filter((text) => pattern.test(text)).length > texts.length;
  const style = citingStyleOf(paper);
  const numbered = most(/^\[\d+\]/) ? '[n]' : most(/^\d+[.)]/) ? 'n.' : null;
  return {
    style,
    yearInBrackets: texts.length === 0 || most(/\(\d{4}[a-z]?\)/),
    and: most(/\s&\s/) ? '&' : 'and',
    number: numbered ?? (style === 'numeric' ? '[n]' : null),
  };
}

/** What follows the first letter of a name. */
const AFTER_FIRST = /(?<=^\p{L}).*$/u;

const initials = (given: string) =>
  given
    .split(/[\s.]+/u)
    .filter((part) => part !== '')
    .map((part) =>
      part
        .split('-')
        .map((piece) => piece.replace(AFTER_FIRST, '.'))
        .join('-'),
    )
    .join(' ');

const familyFirst = ({ family, given }: WorkName) =>
  given === '' ? family : `${family}, ${initials(given)}`;
const givenFirst = ({ family, given }: WorkName, short: boolean) =>
  given === '' ? family : `${short ? initials(given) : given} ${family}`;

function listed(names: readonly string[], and: string, serial: boolean): string {
  if (names.length < 2) return names.join('');
  return `${names.slice(0, -1).join(', ')}${serial ? ',' : ''} ${and} ${names.at(-1) ?? ''}`;
}

/** Joins what is there; what is empty leaves no comma behind. */
const joined = (parts: readonly string[], by: string) => parts.filter((part) => part !== '').join(by);
const closed = (text: string) => (text === '' || /[.?!]$/u.test(text) ? text : `${text}.`);
const before = (words: string, text: string) => (text === '' ? '' : `${words}${text}`);

function byDate(work: WorkListed, { yearInBrackets, and }: EntryForm): string {
  const authors = listed(work.authors.map(familyFirst), and, false);
  const year = work.year === '' ? 'no date' : work.year;
  const issue = work.issue === '' ? '' : `(${work.issue})`;
  const where = joined([joined([work.within, `${work.volume}${issue}`], ' '), work.pages], ', ');
  const made = joined([work.town, work.publisher], ': ');
  const head = yearInBrackets ? joined([authors, `(${year})`], ' ') : closed(joined([authors, year], ', '));
  return joined([head, closed(work.title), closed(where), closed(made), work.address], ' ');
}

function byPage(work: WorkListed): string {
  const [first, ...others] = work.authors;
  const lead = (first as WorkName | undefined) === undefined ? '' : joined([first.family, first.given], ', ');
  const authors =
    others.length === 0
      ? lead
      : listed([lead, ...others.map((name) => givenFirst(name, false))], 'and', true);
  const inside = work.within !== '';
  const title = inside ? `“${closed(work.title)}”` : closed(work.title);
  const rest = joined(
    [
      work.within,
      before('vol. ', work.volume),
      before('no. ', work.issue),
      work.publisher,
      work.year,
      before(/[-–]/u.test(work.pages) ? 'pp. ' : 'p. ', work.pages),
    ],
    ', ',
  );
  return joined([closed(authors), title, closed(rest), work.address], ' ');
}

function byNumber(work: WorkListed): string {
  const authors = listed(
    work.authors.map((name) => givenFirst(name, true)),
    'and',
    work.authors.length > 2,
  );
  const inside = work.within !== '';
  const rest = joined(
    [
      authors,
      inside ? `“${work.title},”` : work.title,
      work.within,
      before('vol. ', work.volume),
      before('no. ', work.issue),
      joined([work.town, work.publisher], ': '),
      before('pp. ', work.pages),
      work.year,
    ],
    ', ',
  );
  return joined([closed(rest.replace(',”,', ',”')), work.address], ' ');
}

/**
 * An entry of a list of references for a work, in the form of a paper's own.
 * @param number its number, where the list has numbers
 */
export function entryText(work: WorkListed, form: EntryForm, number: number | null): string {
  const text =
    form.style === 'numeric'
      ? byNumber(work)
      : form.style === 'author-page'
        ? byPage(work)
        : byDate(work, form);
  if (form.number === null || number === null) return text;
  return form.number === '[n]' ? `[${number}] ${text}` : `${number}. ${text}`;
}
