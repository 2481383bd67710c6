/** The files in a folder that was dropped, and in those in it. */
async function filesIn(entry: FileSystemEntry): Promise<File[]> {
  if (entry.isFile)
    return [await new Promise<File>((done, fail) => (entry as FileSystemFileEntry).file(done, fail))];
  const reader = (entry as FileSystemDirectoryEntry).createReader();
  const found: File[] = [];
  // A reader gives some entries at a time, and none once it is through.
  for (;;) {
    const some = await new Promise<FileSystemEntry[]>((done, fail) => reader.readEntries(done, fail));
    if (some.length === 0) return found;
    for (const one of some) found.push(...(await filesIn(one)));
  }
}

/** All files of a drop, those of folders included. */
export async function droppedFiles(transfer: DataTransfer): Promise<File[]> {
  // What was dropped can be asked for in the drop's own turn only.
  const entries = [...transfer.items].map((item) => item.webkitGetAsEntry());
  const files = [...transfer.files];
  if (entries.length === 0 || entries.includes(null)) return files;
  const found: File[] = [];
  for (const entry of entries) if (entry !== null) found.push(...(await filesIn(entry)));
  return found;
}
