import { revise } from '../../words/revising.ts';
import { mergeAttributes, Mark, Node } from '@tiptap/core';
import { goToNextCell, tableEditing } from '@tiptap/pm/tables';

/** What the editor knows beyond the usual: raised and lowered letters, tables, pictures with captions, footnotes. */

const script = (name: 'superscript' | 'subscript', tag: 'sup' | 'sub', other: string) =>
  Mark.create({
    name,
    excludes: other,
    parseHTML: () => [{ tag }],
    renderHTML: () => [tag, 0],
  });
export const Superscript = script('superscript', 'sup', 'subscript');
export const Subscript = script('subscript', 'sub', 'superscript');

export const Table = Node.create({
  name: 'table',
  group: 'block',
  content: 'tableRow+',
  isolating: true,
  // What prosemirror-tables knows the parts of a table by.
  extendNodeSchema: ({ name }: { name: string }) =>
    name in ROLES ? { tableRole: ROLES[name as keyof typeof ROLES] } : {},
  parseHTML: () => [{ tag: 'table' }],
  renderHTML: () => ['table', ['tbody', 0]],
  addKeyboardShortcuts() {
    return {
      Tab: () => this.editor.commands.command(({ state, dispatch }) => goToNextCell(1)(state, dispatch)),
      'Shift-Tab': () =>
        this.editor.commands.command(({ state, dispatch }) => goToNextCell(-1)(state, dispatch)),
    };
  },
  addProseMirrorPlugins: () => [tableEditing()],
});
const ROLES = { table: 'table', tableRow: 'row', tableCell: 'cell', tableHeader: 'header_cell' } as const;

export const TableRow = Node.create({
  name: 'tableRow',
  content: '(tableCell | tableHeader)*',
  parseHTML: () => [{ tag: 'tr' }],
  renderHTML: () => ['tr', 0],
});

const cell = (name: 'tableCell' | 'tableHeader', tag: 'td' | 'th') =>
  Node.create({
    name,
    content: 'block+',
    isolating: true,
    addAttributes: () => ({
      colspan: { default: 1, parseHTML: spanOf('colspan') },
      rowspan: { default: 1, parseHTML: spanOf('rowspan') },
      colwidth: { default: null, rendered: false },
    }),
    parseHTML: () => [{ tag }],
    renderHTML: ({ HTMLAttributes }) => [tag, mergeAttributes(HTMLAttributes), 0],
  });
const spanOf = (name: string) => (element: HTMLElement) =>
  Math.min(40, Math.max(1, Number(element.getAttribute(name)) || 1));
export const TableCell = cell('tableCell', 'td');
export const TableHeader = cell('tableHeader', 'th');

/** A footnote where it is called; its text is an attribute, its number is counted by the page. */
export const Footnote = Node.create({
  name: 'footnote',
  group: 'inline',
  inline: true,
  atom: true,
  addAttributes: () => ({
    text: {
      default: '',
      parseHTML: (element) => element.getAttribute('data-footnote') ?? '',
      rendered: false,
    },
  }),
  parseHTML: () => [{ tag: 'sup[data-footnote]', priority: 60 }],
  renderHTML: ({ node }) => [
    'sup',
    {
      'data-footnote': String(node.attrs.text),
      class: 'footnote',
      title: String(node.attrs.text),
      'aria-label': revise.footnoteSays(String(node.attrs.text)),
    },
  ],
});

/** A picture that is kept here, by its hash, with its caption as content. */
export const figureNode = (urlOf: (hash: string) => Promise<string | null>) =>
  Node.create({
    name: 'figure',
    group: 'block',
    content: 'inline*',
    isolating: true,
    draggable: true,
    addAttributes: () => ({
      hash: { default: '', rendered: false },
      mediaType: { default: '', rendered: false },
      alt: { default: '', rendered: false },
      width: { default: 0, rendered: false },
      height: { default: 0, rendered: false },
    }),
    // Only what was copied from here: pictures of other pages stand elsewhere.
    parseHTML: () => [
      {
        tag: 'figure[data-hash]',
        contentElement: 'figcaption',
        getAttrs: ({ dataset }) => ({
          hash: dataset.hash,
          mediaType: dataset.type,
          alt: dataset.alt,
          width: Number(dataset.width) || 0,
          height: Number(dataset.height) || 0,
        }),
      },
    ],
    renderHTML: ({ node: { attrs } }) => [
      'figure',
      {
        'data-hash': String(attrs.hash),
        'data-type': String(attrs.mediaType),
        'data-alt': String(attrs.alt),
        'data-width': String(attrs.width),
        'data-height': String(attrs.height),
      },
      ['figcaption', 0],
    ],
    addNodeView() {
      return ({ node }) => {
        const dom = document.createElement('figure');
        const image = document.createElement('img');
        image.alt = String(node.attrs.alt);
        image.width = Number(node.attrs.width);
        image.height = Number(node.attrs.height);
        image.contentEditable = 'false';
        const contentDOM = document.createElement('figcaption');
        contentDOM.dataset.placeholder = revise.caption;
        dom.append(image, contentDOM);
        void urlOf(String(node.attrs.hash)).then((url) => {
          if (url !== null) image.src = url;
        });
        // That the picture comes is no change of the text.
        const ignoreMutation = ({ target }: { target: globalThis.Node }) => !contentDOM.contains(target);
        return { dom, contentDOM, ignoreMutation };
      };
    },
  });
