import { readFile, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { ElementHandle, Page } from 'puppeteer-core';
import { writeDraftDocx } from '#formats/docx/write-draft.ts';
import { readMarkedPdf } from '#formats/pdf/read-marked-pdf.ts';
import { clickRole, seeText, until, type Desk } from './harness.ts';
import rewrite from './rewrites/careful.json' with { type: 'json' };

/** The bytes of the marked report as the desk keeps them. */
export async function markedBytes(desk: Desk): Promise<Uint8Array> {
  const files = desk.folder.state.facts.flatMap((fact) =>
    fact.kind === 'marking' && fact.value.assignmentId === 'skarn-moss-report' ? fact.value.files : [],
  );
  const hash = files.find(({ role }) => role === 'marked')?.hash ?? '';
  return new Uint8Array(await readFile(desk.folder.pathOfFile(hash) ?? ''));
}

/** The report with some of its words rewritten, as a Word file on disk, made from the marked PDF that the desk serves. */
export async function rewrittenFile(
  desk: Desk,
  folder: string,
  changes: readonly (readonly string[])[] = rewrite.changes,
): Promise<string> {
  const pdf = await readMarkedPdf(await markedBytes(desk), null);
  const blocks = pdf.paper.blocks.map(({ kind, level, text }) => ({
    kind,
    level,
    runs: [
      {
        text: changes.reduce((t, [old, anew]) => t.replace(old, anew), text),
        bold: false,
        italic: false,
      },
    ],
  }));
  const path = join(folder, 'report rewritten elsewhere.docx');
  await writeFile(path, await writeDraftDocx(blocks, 'Report', new Map()));
  return path;
}

/** Chooses files with the button of this label. */
export async function chooseFile(page: Page, label: string, ...paths: string[]): Promise<void> {
  const input = (await page
    .waitForSelector(`label ::-p-text(${label})`)
    .then((found) =>
      found?.evaluateHandle((element) => element.closest('label')?.querySelector('input[type="file"]')),
    )) as ElementHandle<HTMLInputElement>;
  await input.uploadFile(...paths);
}

/** Drops files on the page as a browser does. */
export async function drop(page: Page, ...files: [name: string, bytes: Uint8Array][]): Promise<void> {
  await dropOn(page, null, ...files);
}

/** Drops files on an element; null: on the page. */
export async function dropOn(
  page: Page,
  selector: string | null,
  ...files: [name: string, bytes: Uint8Array][]
): Promise<void> {
  await page.evaluate(
    (list, on) => {
      const transfer = new DataTransfer();
      for (const [name, base64] of list) {
        const data = Uint8Array.from(atob(base64), (c) => c.charCodeAt(0));
        transfer.items.add(new File([data], name));
      }
      const target = on === null ? window : document.querySelector(on);
      for (const kind of ['dragenter', 'dragover', 'drop'])
        target?.dispatchEvent(
          new DragEvent(kind, { dataTransfer: transfer, bubbles: true, cancelable: true }),
        );
    },
    files.map(([name, bytes]): [string, string] => [name, Buffer.from(bytes).toString('base64')]),
    selector,
  );
}

/** Says yes to where files belong. */
export async function takeIn(page: Page, count: number): Promise<void> {
  await seeText(page, 'Where does this belong?');
  await clickRole(page, 'button', count === 1 ? 'Take it in' : `Take in ${count} files`);
}

/** A workspace of files alone, with nothing in it. */
export async function openAlone(page: Page, desk: Desk): Promise<void> {
  await page.goto(desk.address);
  await clickRole(page, 'button', 'Work from files alone');
  await seeText(page, 'Nothing here yet.');
}

/** The reading place of the assignment that is open. */
export async function openReading(page: Page): Promise<void> {
  const link = await page.waitForSelector('nav a[href$="/read"]');
  await link?.evaluate((element) => (element as HTMLElement).click());
}

/** A paper as the only one of a workspace, open to be read. */
export async function openDropped(page: Page, desk: Desk, name: string, bytes: Uint8Array): Promise<void> {
  await openAlone(page, desk);
  await drop(page, [name, bytes]);
  await until(page, () => location.pathname.startsWith('/a/'));
  await openReading(page);
  await page.waitForSelector('[data-page] .textLayer span, [data-sheet], [data-page] img');
}

/** The drawing that was marked, as another file: what follows the end of a PNG is no part of the picture. */
export async function newDrawing(folder: string, name: string): Promise<string> {
  const path = join(folder, name);
  const old = await readFile(join(process.cwd(), 'demo', 'media', 'core-log.png'));
  await writeFile(path, Buffer.concat([old, Buffer.from(name)]));
  return path;
}
