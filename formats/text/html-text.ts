import { Parser } from 'htmlparser2';

/** Elements that end a line. */
const LINES = new Set(['br', 'p', 'div', 'li', 'tr', 'h1', 'h2', 'h3', 'h4', 'h5', 'h6']);
/** Elements whose text is not for reading. */
const SILENT = new Set(['script', 'style', 'head', 'title']);

/** The text of a piece of HTML or XHTML: a line for each paragraph, its character references opened, nothing of its markup. */
export function textOfHtml(html: string): string {
  let text = '';
  let silent = 0;
  const parser = new Parser(
    {
      onopentagname: (name) => {
        if (SILENT.has(name)) silent++;
        if (name === 'br') text += '\n';
      },
      ontext: (part) => {
        if (silent === 0) text += part.replaceAll(/\s+/g, ' ');
      },
      onclosetag: (name) => {
        if (SILENT.has(name)) silent--;
        if (LINES.has(name) && name !== 'br') text += '\n';
      },
    },
    { decodeEntities: true, recognizeSelfClosing: true },
  );
  parser.end(html);
  return text
    .replaceAll(/[ \u00a0]*\n[ \u00a0]*/g, '\n')
    .replaceAll(/\n{2,}/g, '\n')
    .replaceAll(/[ \u00a0]+/g, ' ')
    .trim();
}
