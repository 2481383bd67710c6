import { mkdtemp, readdir, readFile, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Page } from 'puppeteer-core';
import { vi } from 'vitest';

/** Lets a page save files into a folder. */
export async function savesInto(page: Page, folder: string): Promise<void> {
  const session = await page.createCDPSession();
  await session.send('Page.setDownloadBehavior', { behavior: 'allow', downloadPath: folder });
}

/** The text of a file with an ending that was saved there, once it is another than before. */
export function savedText(folder: string, ending: string, before = ''): Promise<string> {
  return vi.waitFor(
    async () => {
      const names = (await readdir(folder)).filter((name) => name.endsWith(ending));
      for (const name of names) {
        const text = await readFile(join(folder, name), 'utf8');
        if (text !== '' && text !== before) return text;
      }
      throw new Error(`no new file with ${ending}`);
    },
    { timeout: 15_000, interval: 100 },
  );
}

/** The file that a page saves when something is done in it, under the name that it gives it. */
export async function saveBy(
  page: Page,
  act: () => Promise<unknown>,
): Promise<{ readonly name: string; readonly bytes: Uint8Array<ArrayBuffer> }> {
  const folder = await mkdtemp(join(tmpdir(), 'juncture-saved-'));
  try {
    await savesInto(page, folder);
    await act();
    return await vi.waitFor(
      async () => {
        const [name] = (await readdir(folder)).filter((one) => !one.endsWith('.crdownload'));
        const bytes = new Uint8Array(await readFile(join(folder, name)));
        if (bytes.length === 0) throw new Error(`${name} is not there yet`);
        return { name, bytes };
      },
      { timeout: 60_000, interval: 100 },
    );
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}
