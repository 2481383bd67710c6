import { parseXml } from '../xml/parse-xml.ts';
import { openDocx } from './docx-parts.ts';

/** Something in a file that a draft which is written here can't hold. */
export interface NotHeld {
  readonly what:
    | 'text boxes'
    | 'tracked changes'
    | 'comments'
    | 'equations'
    | 'charts'
    | 'objects'
    | 'merged cells'
    | 'contents'
    | 'heads and feet'
    | 'other pictures'
    | 'pages';
  readonly count: number;
}

const BY_ELEMENT: Readonly<Record<string, NotHeld['what']>> = {
  'w:txbxContent': 'text boxes',
  'w:commentReference': 'comments',
  'm:oMath': 'equations',
  'c:chart': 'charts',
  'dgm:relIds': 'charts',
  'w:object': 'objects',
  'w:gridSpan': 'merged cells',
  'w:vMerge': 'merged cells',
  'w:headerReference': 'heads and feet',
  'w:footerReference': 'heads and feet',
};

/**
 * What of a Word file a draft can't hold, but for its pictures and tracked changes. What is written twice, for old readers too,
 * counts once.
 * @throws UnreadableFile
 */
export function notHeldInDocx(bytes: Uint8Array): NotHeld[] {
  const counts = new Map<NotHeld['what'], number>();
  const add = (what: NotHeld['what']) => counts.set(what, (counts.get(what) ?? 0) + 1);
  let fallbacks = 0;
  let inInstruction = false;
  parseXml(openDocx(bytes).document, {
    open: (name, attributes) => {
      if (name === 'mc:Fallback') fallbacks++;
      inInstruction = name === 'w:instrText';
      const what = BY_ELEMENT[name] as NotHeld['what'] | undefined;
      // Over one column alone nothing is merged.
      const isPlain = name === 'w:gridSpan' && attributes['w:val'] === '1';
      if (what !== undefined && fallbacks === 0 && !isPlain) add(what);
    },
    text: (text) => {
      if (inInstruction && /^\s*TOC\b/.test(text)) add('contents');
    },
    close: (name) => {
      if (name === 'mc:Fallback') fallbacks--;
      if (name === 'w:instrText') inInstruction = false;
    },
  });
  return [...counts].map(([what, count]) => ({ what, count }));
}
