import type { DraftContent } from '#core/model/work.ts';
import { picturesIn, richBlocksOf, type RichBlock } from '#core/paper/draft.ts';
import { reader } from '../../workers/clients.ts';
import type { Workspace } from '../../workspace/workspace.ts';

/** A draft that is written here, as files. */

/** The pictures of a draft, by their hash; those whose bytes are gone are left out. */
async function picturesOf(
  workspace: Workspace,
  blocks: readonly RichBlock[],
): Promise<Map<string, Uint8Array<ArrayBuffer>>> {
  const found = new Map<string, Uint8Array<ArrayBuffer>>();
  for (const { hash } of picturesIn(blocks)) {
    const bytes = await workspace.fileBytes(hash);
    if (bytes !== null) found.set(hash, bytes);
  }
  return found;
}

/** As a Word file. */
export async function draftDocx(
  workspace: Workspace,
  content: DraftContent,
  title: string,
): Promise<Uint8Array<ArrayBuffer>> {
  const blocks = richBlocksOf(content);
  const pictures = await picturesOf(workspace, blocks);
  return reader.ask((worker) => worker.writeDraftDocx(blocks, title, pictures));
}

/** As a tagged PDF. @param at when it is made, ISO 8601 */
export async function draftPdf(
  workspace: Workspace,
  content: DraftContent,
  about: { readonly title: string; readonly language: string; readonly at: string },
): Promise<Uint8Array<ArrayBuffer>> {
  const blocks = richBlocksOf(content);
  const pictures = await picturesOf(workspace, blocks);
  return reader.ask((worker) => worker.writePdf({ ...about, blocks, pictures }));
}

/** As Markdown. */
export async function draftMarkdown(content: DraftContent): Promise<Uint8Array<ArrayBuffer>> {
  const { writeMarkdown } = await import('#formats/text/write-markdown.ts');
  return new TextEncoder().encode(writeMarkdown(richBlocksOf(content)));
}
