import StarterKit from '@tiptap/starter-kit';
import { FollowedPassages } from './followed.ts';
import { FoundWords } from './find.ts';
import {
  figureNode,
  Footnote,
  Subscript,
  Superscript,
  Table,
  TableCell,
  TableHeader,
  TableRow,
} from './nodes.ts';

/** All that a draft can hold. @param urlOf where a picture's bytes can be shown from; null where they are gone */
export function draftKit(urlOf: (hash: string) => Promise<string | null>) {
  return [
    StarterKit.configure({
      heading: { levels: [1, 2, 3, 4] },
      codeBlock: false,
      code: false,
      horizontalRule: false,
      strike: false,
      underline: false,
      link: { openOnClick: false, autolink: false, protocols: ['http', 'https', 'mailto'] },
    }),
    Superscript,
    Subscript,
    Table,
    TableRow,
    TableCell,
    TableHeader,
    Footnote,
    figureNode(urlOf),
    FollowedPassages,
    FoundWords,
  ];
}
