import { strToU8, type AsyncFlateStreamHandler, type Zip, type ZipInputFile } from 'fflate';
import type { Packing } from './packing.ts';

/** How a zip marks what is packed with deflate. */
const DEFLATE = 8;

/** A file within a zip that comes to it packed. */
class PackedEntry implements ZipInputFile {
  readonly compression = DEFLATE;
  size = 0;
  crc = 0;
  ondata: AsyncFlateStreamHandler = () => undefined;

  constructor(
    readonly filename: string,
    readonly mtime: number,
  ) {}
}

export type PackedFile = {
  /** Resolves when the next piece may come: packing goes on beside whoever makes it. What is given is not to be used after. */
  readonly write: (piece: string | Uint8Array<ArrayBuffer>) => Promise<void>;
  readonly end: () => Promise<void>;
};

/** Begins a file in a zip; the one before must have ended. @param atMs when it was changed, ms since 1970 */
export async function packedFile(
  zip: Zip,
  packing: Packing,
  name: string,
  atMs: number,
): Promise<PackedFile> {
  await packing.begin();
  const entry = new PackedEntry(name, atMs);
  zip.add(entry);
  let under: Promise<void> = Promise.resolve();
  const pack = async (bytes: Uint8Array<ArrayBuffer>) => {
    const packed = await packing.write(bytes);
    if (packed.length > 0) entry.ondata(null, packed, false);
  };
  return {
    write: async (piece) => {
      await under;
      const bytes = typeof piece === 'string' ? new Uint8Array(strToU8(piece)) : piece;
      entry.size += bytes.length;
      under = pack(bytes);
      // Told to whoever writes next, or ends it.
      under.catch(() => undefined);
    },
    end: async () => {
      await under;
      const { packed, crc } = await packing.end();
      entry.crc = crc;
      entry.ondata(null, packed, true);
    },
  };
}
