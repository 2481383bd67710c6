import { Parser } from 'htmlparser2';
import { escapeXml } from '../xml/escape-xml.ts';

/** What of a page a draft can hold. Whatever else stands in it leaves its words, or nothing. */
const KEPT = new Set(
  'p h1 h2 h3 h4 h5 h6 ul ol li blockquote strong b em i sup sub a br table thead tbody tr td th figure figcaption div span'.split(
    ' ',
  ),
);
/** What is no text for a reader. */
const SILENT = new Set([
  'script',
  'style',
  'template',
  'noscript',
  'iframe',
  'object',
  'svg',
  'math',
  'head',
  'title',
]);
const LEADS = /^(?:https?|mailto):/i;
const SPANS = new Set(['colspan', 'rowspan']);
/** Of elements that were copied from a draft: a footnote's text, which picture a figure shows. */
const OWN = new Set(['data-footnote', 'data-hash', 'data-type', 'data-alt', 'data-width', 'data-height']);

function keptAttribute(tag: string, name: string, value: string): boolean {
  if (name === 'href') return tag === 'a' && LEADS.test(value.trim());
  if (SPANS.has(name)) return (tag === 'td' || tag === 'th') && /^\d{1,2}$/.test(value);
  return (tag === 'sup' || tag === 'figure') && OWN.has(name);
}

/**
 * HTML from outside without whatever runs, is fetched, or only looks like something: known elements and attributes alone, all of
 * it written anew. It is read as text, never as a page, so that nothing in it is even tried.
 */
export function cleanHtml(html: string): string {
  const out: string[] = [];
  let silent = 0;
  // A tag that the end cuts short is closed without having been opened.
  const open: string[] = [];
  const parser = new Parser({
    onopentag(name, attributes) {
      open.push(name);
      if (SILENT.has(name)) silent++;
      if (silent > 0 || !KEPT.has(name)) return;
      const kept = Object.entries(attributes).filter(([key, value]) => keptAttribute(name, key, value));
      out.push(`<${name}${kept.map(([key, value]) => ` ${key}="${escapeXml(value)}"`).join('')}>`);
    },
    ontext(text) {
      if (silent === 0) out.push(escapeXml(text));
    },
    onclosetag(name) {
      if (open.at(-1) !== name) return;
      open.pop();
      if (SILENT.has(name)) silent--;
      else if (silent === 0 && KEPT.has(name) && name !== 'br') out.push(`</${name}>`);
    },
  });
  parser.end(html);
  return out.join('');
}
