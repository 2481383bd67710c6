import type { Page } from 'puppeteer-core';

/** Where a desk is served. */
export interface Site {
  readonly address: string;
}

/** Opens the page's origin without starting Juncture there. */
export async function openBare(page: Page, desk: Site): Promise<void> {
  await page.setJavaScriptEnabled(false);
  await page.goto(`${desk.address}/settings`);
  await page.setJavaScriptEnabled(true);
}

/** Gives the page's origin a disk of 40 MB, before anything is stored there. */
export async function giveSmallDisk(page: Page, desk: Site): Promise<void> {
  // The browser looks again only seconds later how much room there is.
  await openBare(page, desk);
  const client = await page.createCDPSession();
  await client.send('Storage.overrideQuotaForOrigin', { origin: desk.address, quotaSize: 40_000_000 });
}

/** Writes into a database of its own until not even a few bytes find room. */
export async function fillTheDisk(): Promise<void> {
  const database = await new Promise<IDBDatabase>((resolve, reject) => {
    const opening = indexedDB.open('filler', 1);
    opening.onupgradeneeded = () => opening.result.createObjectStore('bytes', { autoIncrement: true });
    opening.onsuccess = () => resolve(opening.result);
    opening.onerror = () => reject(new Error('the filler did not open'));
  });
  const put = (size: number) =>
    new Promise<boolean>((resolve) => {
      const transaction = database.transaction('bytes', 'readwrite');
      transaction.objectStore('bytes').add(crypto.getRandomValues(new Uint8Array(Math.min(size, 65_536))));
      for (let filled = 65_536; filled < size; filled += 65_536)
        transaction.objectStore('bytes').add(crypto.getRandomValues(new Uint8Array(65_536)));
      transaction.oncomplete = () => resolve(true);
      transaction.onabort = () => resolve(false);
    });
  for (let size = 16_777_216; size >= 64; size /= 2) while (await put(size));
  database.close();
}

/** Holds a writing transaction on the workspace's database for as long as the page lives. */
export async function keepStorageBusy(): Promise<void> {
  const workspace = (await indexedDB.databases()).find(({ name }) => name?.startsWith('juncture/'));
  const database = await new Promise<IDBDatabase>((resolve, reject) => {
    const opening = indexedDB.open(workspace?.name ?? '');
    opening.onsuccess = () => resolve(opening.result);
    opening.onerror = () => reject(new Error('the workspace did not open'));
  });
  const store = database.transaction('records', 'readwrite').objectStore('records');
  const stay = () => {
    store.count().onsuccess = stay;
  };
  stay();
  const begin = Reflect.get(IDBDatabase.prototype, 'transaction') as (...asked: unknown[]) => IDBTransaction;
  Object.defineProperty(IDBDatabase.prototype, 'transaction', {
    value: new Proxy(begin, {
      apply: (target, self, asked) => {
        if (asked[1] === 'readwrite') document.documentElement.dataset.waiting = 'true';
        return Reflect.apply(target, self, asked);
      },
    }),
  });
}

/** Whether something waits for the storage that is kept busy. */
export const isStorageAwaited = () => document.documentElement.dataset.waiting === 'true';
