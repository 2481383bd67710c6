import type { TextStyle } from '../text/layout-writer.ts';
import { parseXml } from '../xml/parse-xml.ts';

/** Which text styles are bold or italic, by name. */
export function readLooks(xml: string, looks: Map<string, TextStyle>): void {
  let style: string | null = null;
  parseXml(xml, {
    open: (name, attributes) => {
      if (name === 'style:style' && attributes['style:family'] === 'text')
        style = attributes['style:name'] ?? null;
      if (name !== 'style:text-properties' || style === null) return;
      looks.set(style, {
        bold: /^(bold|[6-9]00)$/.test(attributes['fo:font-weight'] ?? ''),
        italic: /^(italic|oblique)$/.test(attributes['fo:font-style'] ?? ''),
      });
    },
    close: (name) => {
      if (name === 'style:style') style = null;
    },
  });
}

/** A third of an inch: less is no quotation set off. */
const LEAST_MARGIN_CM = 0.85;
const CM: Readonly<Record<string, number>> = { cm: 1, mm: 0.1, in: 2.54, pt: 2.54 / 72 };

function inCm(length: string | undefined): number {
  const found = /^(-?[\d.]+)(cm|mm|in|pt)$/.exec(length ?? '');
  return found === null ? 0 : Number(found[1]) * CM[found[2]];
}

/** Which paragraph styles set a paragraph off as a quotation, by their name, what they come of, or their margin. */
export function readSetOff(xml: string, setOff: Set<string>): void {
  let style: string | null = null;
  parseXml(xml, {
    open: (name, attributes) => {
      if (name === 'style:style' && attributes['style:family'] === 'paragraph') {
        style = attributes['style:name'] ?? null;
        const parent = attributes['style:parent-style-name'] ?? '';
        if (style !== null && (setOff.has(parent) || /quot/i.test(`${style} ${parent}`))) setOff.add(style);
      }
      if (name !== 'style:paragraph-properties' || style === null) return;
      if (inCm(attributes['fo:margin-left']) >= LEAST_MARGIN_CM && inCm(attributes['fo:text-indent']) >= 0)
        setOff.add(style);
    },
    close: (name) => {
      if (name === 'style:style') style = null;
    },
  });
}
