import { Document, Packer, TextRun, type IPropertiesOptions, type IRunOptions } from 'docx';

/** How every Word file that is written here looks, and how it becomes bytes. */

const STYLES = {
  default: {
    document: {
      run: { font: 'Times New Roman', size: 24 },
      paragraph: { spacing: { after: 160, line: 320 } },
    },
  },
};

/** A run of characters with its looks; sizes are in half points. */
export function textRun(options: IRunOptions): TextRun {
  return new TextRun(options);
}

/** A document in the look of all, as the bytes of a file. */
export async function written(
  options: Omit<IPropertiesOptions, 'styles' | 'creator'>,
): Promise<Uint8Array<ArrayBuffer>> {
  const document = new Document({ creator: '', styles: STYLES, ...options });
  return new Uint8Array(await Packer.toArrayBuffer(document));
}
