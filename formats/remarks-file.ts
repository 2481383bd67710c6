import { UnreadableFile } from './unreadable.ts';
import { readWebAnnotations } from './web-annotation/read-web-annotation.ts';
import { readXfdf } from './xfdf/read-xfdf.ts';
import { parseXml, textOfPart } from './xml/parse-xml.ts';

/** What a file of remarks tells of what they are about, before they are put onto it. */
export interface RemarksFile {
  readonly count: number;
  /** Names of the files that the remarks say they are about. */
  readonly about: readonly string[];
  /** Words that they quote. */
  readonly quotes: string;
}

/** @throws UnreadableFile for one that is damaged or holds none */
export function remarksFileOf(bytes: Uint8Array, kind: 'xfdf' | 'web annotation'): RemarksFile {
  if (kind === 'xfdf') {
    const annotations = readXfdf(bytes).filter(({ inReplyTo }) => inReplyTo === null);
    if (annotations.length === 0) throw new UnreadableFile('no remarks');
    return { count: annotations.length, about: xfdfSources(textOfPart(bytes)), quotes: '' };
  }
  const remarks = readWebAnnotations(bytes);
  const targets = remarks.flatMap((remark) => remark.targets);
  const quotes = targets.flatMap(({ selectors }) =>
    selectors.flatMap((selector) => (selector.kind === 'quote' ? [selector.exact] : [])),
  );
  return {
    count: remarks.length,
    about: [...new Set(targets.map(({ source }) => lastPart(source)))],
    quotes: quotes.join('\n'),
  };
}

/** The file that XFDF names by its element f. */
function xfdfSources(xml: string): string[] {
  const found: string[] = [];
  parseXml(xml, {
    open: (name, { href }) => {
      if (name === 'f' && href !== undefined) found.push(lastPart(href));
    },
  });
  return found;
}

function lastPart(path: string): string {
  return path.split(/[\\/]/).at(-1) ?? path;
}
