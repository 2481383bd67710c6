import type { Page } from 'puppeteer-core';
import { openBare, type Site } from './storage.ts';

/**
 * What a workspace held once everything of a desk had come in. Most browser tests are not about coming in: they take
 * over what the first of them brought in through the interface, and sign in from there.
 */
interface Kept {
  readonly name: string;
  readonly version: number;
  readonly stores: readonly {
    readonly name: string;
    readonly keyPath: string | string[] | null;
    readonly autoIncrement: boolean;
    readonly indexes: readonly {
      readonly name: string;
      readonly keyPath: string | string[];
      readonly multiEntry: boolean;
    }[];
    readonly rows: string;
  }[];
}

/** A desk, and what names its content. */
type Filled = Site & { readonly content: string };

const kept = new Map<string, Kept>();

export function isKept(desk: Filled): boolean {
  return kept.has(desk.content);
}

/** Keeps what the page's workspace holds, for desks with the same content. */
export async function keepWorkspace(page: Page, desk: Filled): Promise<void> {
  await atRest(page);
  kept.set(desk.content, await page.evaluate(readWorkspace));
}

/** Waits until nothing was added to the workspace for a while: longer where what remarks say isn't kept, or there are none. */
async function atRest(page: Page): Promise<void> {
  let before = '';
  for (let still = 0, enough = 4; still < enough;) {
    await new Promise((resolve) => setTimeout(resolve, 250));
    const { held, isSaid } = await page.evaluate(heldInWorkspace);
    still = held === before ? still + 1 : 0;
    enough = isSaid ? 4 : 12;
    before = held;
  }
}

/** How much each store holds, and whether what the remarks say is kept. */
async function heldInWorkspace(): Promise<{ held: string; isSaid: boolean }> {
  const done = <T>(request: IDBRequest<T>) =>
    new Promise<T>((resolve, reject) => {
      request.onsuccess = () => resolve(request.result);
      request.onerror = () => reject(request.error ?? new Error('not read'));
    });
  const { name = '' } = (await indexedDB.databases()).find((one) => one.name?.startsWith('juncture/')) ?? {};
  const database = await done(indexedDB.open(name));
  const sayings = await done<unknown>(database.transaction('meta').objectStore('meta').get('sayings'));
  const counts = await Promise.all(
    [...database.objectStoreNames].map((store) =>
      done(database.transaction(store).objectStore(store).count()),
    ),
  );
  database.close();
  return { held: counts.join(), isSaid: sayings !== undefined };
}

/** Puts what was kept into the browser's storage, before Juncture opens it. */
export async function giveWorkspace(page: Page, desk: Filled): Promise<void> {
  const workspace = kept.get(desk.content);
  if (workspace === undefined) throw new Error('nothing is kept of this desk');
  await openBare(page, desk);
  await page.evaluate(writeWorkspace, workspace);
}

async function readWorkspace(): Promise<Kept> {
  const done = <T>(request: IDBRequest<T>) =>
    new Promise<T>((resolve, reject) => {
      request.onsuccess = () => resolve(request.result);
      request.onerror = () => reject(request.error ?? new Error('not read'));
    });
  const packed = (_key: string, value: unknown) => {
    if (value instanceof Map) return { $map: [...(value as Map<unknown, unknown>)] };
    if (!(value instanceof Uint8Array)) return value;
    let binary = '';
    for (let i = 0; i < value.length; i += 32_768)
      binary += String.fromCharCode(...value.subarray(i, i + 32_768));
    return { $bytes: btoa(binary) };
  };
  const found = (await indexedDB.databases()).filter(({ name }) => name?.startsWith('juncture/'));
  const [{ name = '' } = {}] = found;
  if (found.length !== 1) throw new Error(`${found.length} workspaces`);
  const database = await done(indexedDB.open(name));
  const stores = [];
  for (const storeName of database.objectStoreNames) {
    const store = database.transaction(storeName).objectStore(storeName);
    const [keys, values] = await Promise.all([done(store.getAllKeys()), done(store.getAll())]);
    stores.push({
      name: storeName,
      keyPath: store.keyPath,
      autoIncrement: store.autoIncrement,
      indexes: [...store.indexNames].map((name) => {
        const { keyPath, multiEntry } = store.index(name);
        return { name, keyPath, multiEntry };
      }),
      rows: JSON.stringify(
        keys.map((key, i) => ({ key, value: values[i] as unknown })),
        packed,
      ),
    });
  }
  const { version } = database;
  database.close();
  return { name, version, stores };
}

async function writeWorkspace({ name, version, stores }: Kept): Promise<void> {
  const unpacked = (_key: string, value: unknown) => {
    if (typeof value !== 'object' || value === null) return value;
    if ('$map' in value) return new Map(value.$map as [unknown, unknown][]);
    if (!('$bytes' in value)) return value;
    return Uint8Array.from(atob(String(value.$bytes)), (letter) => letter.charCodeAt(0));
  };
  const database = await new Promise<IDBDatabase>((resolve, reject) => {
    const opening = indexedDB.open(name, version);
    opening.onupgradeneeded = () => {
      for (const { name: store, keyPath, autoIncrement, indexes } of stores) {
        const made = opening.result.createObjectStore(store, { keyPath, autoIncrement });
        for (const { name: index, keyPath: path, multiEntry } of indexes)
          made.createIndex(index, path, { multiEntry });
      }
    };
    opening.onsuccess = () => resolve(opening.result);
    opening.onerror = () => reject(opening.error ?? new Error('not opened'));
  });
  const transaction = database.transaction(database.objectStoreNames, 'readwrite');
  for (const { name: storeName, keyPath, rows } of stores) {
    const store = transaction.objectStore(storeName);
    for (const { key, value } of JSON.parse(rows, unpacked) as { key: IDBValidKey; value: unknown }[])
      store.put(value, keyPath === null ? key : undefined);
  }
  await new Promise((resolve, reject) => {
    transaction.oncomplete = resolve;
    transaction.onabort = () => reject(transaction.error ?? new Error('not written'));
  });
  database.close();
}
