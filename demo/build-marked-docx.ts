import { strToU8, zipSync, type Zippable } from 'fflate';
import type { Block } from '#core/paper/paper.ts';
import { escapeXml } from '#formats/xml/escape-xml.ts';

/** Makes a marked Word file: the text with comments, answers and tracked changes, part by part after ECMA-376. */

export interface DocxRemark {
  readonly id: string;
  readonly quote?: string;
  readonly near?: string;
  readonly text: string;
  readonly replies?: readonly { readonly author: string; readonly text: string; readonly minutes: number }[];
}

export interface DocxChange {
  readonly id: string;
  readonly kind: 'insert' | 'delete' | 'replace';
  readonly quote?: string;
  readonly after?: string;
  readonly with?: string;
}

const NS =
  'xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main" xmlns:w14="http://schemas.microsoft.com/office/word/2010/wordml" xmlns:w15="http://schemas.microsoft.com/office/word/2012/wordml"';
const HEAD = '<?xml version="1.0" encoding="UTF-8" standalone="yes"?>\n';
const TYPES = 'http://schemas.openxmlformats.org/package/2006/content-types';
const RELATIONS = 'http://schemas.openxmlformats.org/package/2006/relationships';
const OFFICE = 'http://schemas.openxmlformats.org/officeDocument/2006/relationships';
const WORD = 'application/vnd.openxmlformats-officedocument.wordprocessingml';

/** Something that stands at a place of a block's text. Of several at one place, the one with the lower rank is first. */
interface Piece {
  readonly at: number;
  readonly rank: number;
  readonly xml: string;
}

interface Comment {
  readonly number: number;
  readonly author: string;
  readonly at: Date;
  readonly text: string;
  readonly parent: number | null;
}

function paragraphId(number: number): string {
  return (0x10000 + number).toString(16).toUpperCase().padStart(8, '0');
}

function initials(name: string): string {
  return name.replace(/[^A-Z]/g, '');
}

/** @param markedAt the moment of every remark, so that the same day gives the same bytes */
export function buildMarkedDocx(
  blocks: readonly Block[],
  remarks: readonly DocxRemark[],
  changes: readonly DocxChange[],
  author: string,
  markedAt: Date,
): Uint8Array {
  const comments: Comment[] = [];
  const pieces = new Map<number, Piece[]>();
  const deleted = new Map<number, { from: number; to: number }[]>();
  const put = (block: number, piece: Piece) => pieces.set(block, [...(pieces.get(block) ?? []), piece]);
  const find = (words: string) => {
    const found = blocks.flatMap((block, index) => (block.text.includes(words) ? [index] : []));
    if (found.length !== 1) throw new Error(`“${words}” stands in ${found.length} paragraphs, wanted in one`);
    const from = blocks[found[0]].text.indexOf(words);
    return { block: found[0], from, to: from + words.length };
  };
  for (const remark of remarks) {
    const { block, from, to } = find(remark.quote ?? remark.near ?? '');
    const own = [{ author, at: markedAt, text: remark.text }].concat(
      (remark.replies ?? []).map((reply) => ({
        author: reply.author,
        at: new Date(markedAt.getTime() + reply.minutes * 60_000),
        text: reply.text,
      })),
    );
    const first = comments.length;
    own.forEach((one, i) => {
      const number = first + i;
      comments.push({ ...one, number, parent: i === 0 ? null : first });
      put(block, { at: from, rank: 1, xml: `<w:commentRangeStart w:id="${number}"/>` });
      put(block, {
        at: to,
        rank: 0,
        xml: `<w:commentRangeEnd w:id="${number}"/><w:r><w:commentReference w:id="${number}"/></w:r>`,
      });
    });
  }
  const who = `w:author="${escapeXml(author)}" w:date="${markedAt.toISOString().slice(0, 19)}Z"`;
  changes.forEach((change, index) => {
    const { block, from, to } = find(change.quote ?? change.after ?? '');
    const id = 900 + index * 2;
    if (change.kind !== 'insert') {
      put(block, { at: from, rank: 2, xml: `<w:del w:id="${id}" ${who}>` });
      put(block, { at: to, rank: -1, xml: '</w:del>' });
      deleted.set(block, [...(deleted.get(block) ?? []), { from, to }]);
    }
    if (change.with !== undefined)
      put(block, {
        at: to,
        rank: -0.5,
        xml: `<w:ins w:id="${id + 1}" ${who}><w:r><w:t xml:space="preserve">${escapeXml(change.with)}</w:t></w:r></w:ins>`,
      });
  });
  const body = blocks
    .map((block, index) => paragraphXml(block, pieces.get(index) ?? [], deleted.get(index) ?? []))
    .join('');
  return zipSync(partsOf(body, comments), { mtime: new Date('2020-01-01T00:00:00Z') });
}

function paragraphXml(
  block: Block,
  pieces: readonly Piece[],
  deleted: readonly { from: number; to: number }[],
): string {
  const style = block.kind === 'heading' ? `<w:pPr><w:pStyle w:val="Heading${block.level}"/></w:pPr>` : '';
  const cuts = [...new Set([0, ...pieces.map(({ at }) => at), block.text.length])].sort((x, y) => x - y);
  const runs = cuts.map((from, i) => {
    const here = pieces.filter(({ at }) => at === from).toSorted((x, y) => x.rank - y.rank);
    const text = block.text.slice(from, cuts.at(i + 1) ?? from);
    const isDeleted = deleted.some((span) => from >= span.from && from < span.to);
    const tag = isDeleted ? 'delText' : 't';
    const run = text === '' ? '' : `<w:r><w:${tag} xml:space="preserve">${escapeXml(text)}</w:${tag}></w:r>`;
    return here.map(({ xml }) => xml).join('') + run;
  });
  return `<w:p>${style}${runs.join('')}</w:p>`;
}

function partsOf(body: string, comments: readonly Comment[]): Zippable {
  const commentXml = comments
    .map(
      ({ number, author, at, text }) =>
        `<w:comment w:id="${number}" w:author="${escapeXml(author)}" w:initials="${initials(author)}" w:date="${at.toISOString().slice(0, 19)}Z"><w:p w14:paraId="${paragraphId(number)}"><w:r><w:t xml:space="preserve">${escapeXml(text)}</w:t></w:r></w:p></w:comment>`,
    )
    .join('');
  const extended = comments
    .map(
      ({ number, parent }) =>
        `<w15:commentEx w15:paraId="${paragraphId(number)}"${parent === null ? '' : ` w15:paraIdParent="${paragraphId(parent)}"`} w15:done="0"/>`,
    )
    .join('');
  const styles = [1, 2, 3]
    .map(
      (level) =>
        `<w:style w:type="paragraph" w:styleId="Heading${level}"><w:name w:val="heading ${level}"/><w:pPr><w:outlineLvl w:val="${level - 1}"/></w:pPr><w:rPr><w:b/></w:rPr></w:style>`,
    )
    .join('');
  const part = (xml: string) => strToU8(HEAD + xml);
  return {
    '[Content_Types].xml': part(
      `<Types xmlns="${TYPES}"><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Default Extension="xml" ContentType="application/xml"/><Override PartName="/word/document.xml" ContentType="${WORD}.document.main+xml"/><Override PartName="/word/styles.xml" ContentType="${WORD}.styles+xml"/><Override PartName="/word/comments.xml" ContentType="${WORD}.comments+xml"/><Override PartName="/word/commentsExtended.xml" ContentType="${WORD}.commentsExtended+xml"/></Types>`,
    ),
    '_rels/.rels': part(
      `<Relationships xmlns="${RELATIONS}"><Relationship Id="r1" Type="${OFFICE}/officeDocument" Target="word/document.xml"/></Relationships>`,
    ),
    'word/_rels/document.xml.rels': part(
      `<Relationships xmlns="${RELATIONS}"><Relationship Id="r1" Type="${OFFICE}/styles" Target="styles.xml"/><Relationship Id="r2" Type="${OFFICE}/comments" Target="comments.xml"/><Relationship Id="r3" Type="http://schemas.microsoft.com/office/2011/relationships/commentsExtended" Target="commentsExtended.xml"/></Relationships>`,
    ),
    'word/document.xml': part(`<w:document ${NS}><w:body>${body}</w:body></w:document>`),
    'word/styles.xml': part(`<w:styles ${NS}>${styles}</w:styles>`),
    'word/comments.xml': part(`<w:comments ${NS}>${commentXml}</w:comments>`),
    'word/commentsExtended.xml': part(`<w15:commentsEx ${NS}>${extended}</w15:commentsEx>`),
  };
}
