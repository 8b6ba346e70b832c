/** A folder of this computer that backups go into, where the browser can write into one (File System Access); everywhere else they are downloaded. */

/** What the browsers that have it add to the page; the types of the platform do not know it yet. */
type Picker = {
  readonly showDirectoryPicker?: (of: {
    id: string;
    mode: 'readwrite';
  }) => Promise<FileSystemDirectoryHandle>;
};
type Asking = {
  readonly queryPermission?: (of: { mode: 'readwrite' }) => Promise<PermissionState>;
  readonly requestPermission?: (of: { mode: 'readwrite' }) => Promise<PermissionState>;
};

export const hasFolders = (): boolean => typeof (window as Picker).showDirectoryPicker === 'function';

/** Lets a person choose a folder; null where they chose none, or the browser has no such thing. */
export async function chooseFolder(): Promise<FileSystemDirectoryHandle | null> {
  try {
    return (
      (await (window as Picker).showDirectoryPicker?.({ id: 'garden-backups', mode: 'readwrite' })) ?? null
    );
  } catch {
    return null;
  }
}

/** Whether the page may write into the folder; a browser that was closed meanwhile asks again. Must follow a press. */
export async function mayWrite(folder: FileSystemDirectoryHandle): Promise<boolean> {
  const asking = folder as Asking;
  const mode = { mode: 'readwrite' } as const;
  if ((await asking.queryPermission?.(mode)) === 'granted') return true;
  return asking.requestPermission === undefined || (await asking.requestPermission(mode)) === 'granted';
}

/** Writes a file into the folder, whole or not at all: the browser puts it in its place when it is closed. A name that is taken gets a number: no backup is written over. @returns its name */
export async function writeInto(
  folder: FileSystemDirectoryHandle,
  name: string,
  file: Blob,
): Promise<string> {
  const taken = await freeName(folder, name);
  const writable = await (await folder.getFileHandle(taken, { create: true })).createWritable();
  await writable.write(file);
  await writable.close();
  return taken;
}

async function freeName(folder: FileSystemDirectoryHandle, name: string): Promise<string> {
  const stem = name.replace(/\.zip$/, '');
  for (let turn = 1; ; turn += 1) {
    const tried = turn === 1 ? name : `${stem}-${turn}.zip`;
    const isTaken = await folder.getFileHandle(tried).then(
      () => true,
      () => false,
    );
    if (!isTaken) return tried;
  }
}
