import { readdir, readFile } from 'node:fs/promises';
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
