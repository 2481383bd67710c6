import { useEffect, useState } from 'react';

/** A file on the student's disk that the browser lets be read again (File System Access, where there is one). */
interface FileHandle {
  getFile(): Promise<File>;
}

type Picking = { showOpenFilePicker?: () => Promise<FileHandle[]> };

/** Whether the browser can tell that a file was saved again. */
export function canWatch(): boolean {
  return typeof (globalThis as Picking).showOpenFilePicker === 'function';
}

/** Lets the student choose a file that is watched from then on; null where they chose none. */
export async function chooseToWatch(): Promise<FileHandle | null> {
  try {
    const [handle] = (await (globalThis as Picking).showOpenFilePicker?.()) ?? [];
    return handle;
  } catch (error) {
    if (error instanceof DOMException && error.name === 'AbortError') return null;
    throw error;
  }
}

/** How often a watched file is looked at, in milliseconds: saving and turning to this window takes longer. */
const LOOKED_AT = 1500;

/** The file as it was saved again since it was taken in last; null while it is as it was. */
export function useSavedAgain(handle: FileHandle | null, takenAt: number): File | null {
  const [saved, setSaved] = useState<File | null>(null);
  useEffect(() => {
    if (handle === null) return;
    let over = false;
    const look = async () => {
      // A file that is being written, or was taken away, is looked at again.
      const file = await handle.getFile().catch(() => null);
      if (!over && file !== null) setSaved(file.lastModified > takenAt && file.size > 0 ? file : null);
    };
    const timer = setInterval(() => void look(), LOOKED_AT);
    return () => {
      over = true;
      clearInterval(timer);
    };
  }, [handle, takenAt]);
  return handle === null ? null : saved;
}

export type { FileHandle };
