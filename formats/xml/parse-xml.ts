import { SaxesParser, type SaxesTagPlain } from 'saxes';
import { Malformed } from '../malformed.ts';

/** Real documents stay far below this; what is nested deeper is made to break its readers. */
const DEEPEST = 2000;

/** The attributes of an element, by name with prefix. */
export type Attributes = Readonly<Record<string, string | undefined>>;

/** What is called on the way through a document. */
export interface XmlEvents {
  open?(name: string, attributes: Attributes): void;
  text?(text: string): void;
  close?(name: string): void;
}

/**
 * Goes through an XML text from its beginning to its end. Document type declarations are refused, and with them every
 * entity of a file's own.
 * @throws Malformed for what is not well-formed, declares a document type, or is nested too deep
 */
export function parseXml(xml: string, on: XmlEvents): void {
  const parser = new SaxesParser();
  let depth = 0;
  parser.on('error', (error) => {
    throw new Malformed(error.message);
  });
  parser.on('doctype', () => {
    throw new Malformed('a document type declaration has no place here');
  });
  parser.on('opentag', (tag: SaxesTagPlain) => {
    if (++depth > DEEPEST) throw new Malformed(`nested more than ${DEEPEST} levels deep`);
    on.open?.(tag.name, tag.attributes);
  });
  parser.on('text', (text) => on.text?.(text));
  parser.on('cdata', (text) => on.text?.(text));
  parser.on('closetag', (tag) => {
    depth--;
    on.close?.(tag.name);
  });
  parser.write(xml).close();
}

/** The text of an XML part: UTF-8, or UTF-16 where it begins with that byte order mark. */
export function textOfPart(bytes: Uint8Array): string {
  const utf16 = (bytes[0] === 0xff && bytes[1] === 0xfe) || (bytes[0] === 0xfe && bytes[1] === 0xff);
  const encoding = !utf16 ? 'utf-8' : bytes[0] === 0xff ? 'utf-16le' : 'utf-16be';
  return new TextDecoder(encoding).decode(bytes);
}
