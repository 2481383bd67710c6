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
