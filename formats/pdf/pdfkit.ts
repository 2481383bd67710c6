/** What is used of pdfkit 0.20: the types that are kept for it elsewhere know neither tagging nor PDF/UA. */

/** An element of the structure that screen readers follow (ISO 32000-1, 14.7). */
export interface Structure {
  add(child: Structure): Structure;
  end(): void;
}

interface TextOptions {
  readonly width: number;
  readonly continued?: boolean;
  /** Called through `goTo` with the place of each line of it. */
  readonly goTo?: string | null;
}

/** A step of a glyph's outline, in units of its font, upwards. */
export interface OutlineStep {
  readonly command: 'moveTo' | 'lineTo' | 'quadraticCurveTo' | 'bezierCurveTo' | 'closePath';
  readonly args: readonly number[];
}

/** A font as fontkit has it. */
interface Font {
  readonly unitsPerEm: number;
  hasGlyphForCodePoint(code: number): boolean;
  glyphForCodePoint(code: number): {
    readonly advanceWidth: number;
    readonly path: { readonly commands: readonly OutlineStep[] };
  };
}

/** A PDF that is being written. */
export interface Doc {
  x: number;
  y: number;
  readonly page: {
    readonly width: number;
    readonly height: number;
    readonly margins: { bottom: number };
  };
  /** The font that is set, as fontkit has it. */
  readonly _font: { readonly font: Font };
  /** Is told where text with this option stands: left, top, width, height. */
  goTo: (x: number, y: number, width: number, height: number, name: string) => unknown;
  on(event: 'data', listener: (chunk: Uint8Array) => void): this;
  on(event: 'end', listener: () => void): this;
  on(event: 'error', listener: (error: Error) => void): this;
  registerFont(name: string, bytes: Uint8Array): this;
  font(name: string): this;
  fontSize(points: number): this;
  lineGap(points: number): this;
  text(text: string, options: TextOptions): this;
  text(text: string, x: number, y: number, options: TextOptions): this;
  heightOfString(text: string, options: TextOptions): number;
  fillColor(color: string): this;
  moveTo(x: number, y: number): this;
  lineTo(x: number, y: number): this;
  lineWidth(points: number): this;
  stroke(color: string): this;
  struct(tag: string, content?: () => void): Structure;
  struct(tag: string, options: { readonly alt: string }, content: () => void): Structure;
  image(
    bytes: Uint8Array,
    x: number,
    y: number,
    options: { readonly width: number; readonly height: number },
  ): this;
  addStructure(structure: Structure): this;
  markContent(tag: string, options: Readonly<Record<string, string>>): this;
  endMarkedContent(): this;
  addPage(options?: { readonly size: string; readonly margin: number; readonly layout: string }): this;
  switchToPage(index: number): this;
  bufferedPageRange(): { readonly start: number; readonly count: number };
  end(): void;
}

/** How a document begins. */
export interface DocOptions {
  readonly size: string;
  readonly margin: number;
  readonly bufferPages: boolean;
  readonly autoFirstPage: boolean;
  readonly pdfVersion: string;
  readonly subset: string;
  readonly tagged: boolean;
  readonly lang: string;
  readonly displayTitle: boolean;
  readonly info: Readonly<Record<string, string | Date>>;
  readonly font: string;
}

interface PdfKit {
  readonly default: new (options: DocOptions) => Doc;
}

/** A new document. The library is large, so it is loaded when something is written. */
export async function newDoc(options: DocOptions): Promise<Doc> {
  const { default: Document } = (await import('pdfkit')) as unknown as PdfKit;
  return new Document(options);
}

/** Some characters of a font as outlines. */
export interface Outlines {
  readonly unitsPerEm: number;
  readonly glyphs: ReadonlyMap<string, { readonly width: number; readonly steps: readonly OutlineStep[] }>;
}

/** The outlines of these characters, in units of the font. */
export async function fontOutlines(bytes: Uint8Array, characters: string): Promise<Outlines> {
  const doc = await newDoc({
    size: 'A4',
    margin: 0,
    bufferPages: false,
    autoFirstPage: false,
    pdfVersion: '1.7',
    subset: '',
    tagged: false,
    lang: 'en',
    displayTitle: false,
    info: {},
    font: '',
  });
  const { font } = doc.registerFont('outlined', bytes).font('outlined')._font;
  const glyphs = Array.from(characters, (character) => {
    const { advanceWidth, path } = font.glyphForCodePoint(character.codePointAt(0) ?? 0);
    return [character, { width: advanceWidth, steps: path.commands }] as const;
  });
  return { unitsPerEm: font.unitsPerEm, glyphs: new Map(glyphs) };
}
