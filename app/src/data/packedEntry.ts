import { strToU8, ZipPassThrough, type Zip } from 'fflate';

/** How a zip marks what is packed with deflate. */
const DEFLATE = 8;

/** A file within a zip, packed by the browser's own deflate: some five times as quick as one in JavaScript. */
class PackedEntry extends ZipPassThrough {
  override compression = DEFLATE;
  private readonly packer = new CompressionStream('deflate-raw');
  private readonly into = this.packer.writable.getWriter();
  /** Until the packer takes more. */
  taken = Promise.resolve();

  /** Called with what is pushed, once it is counted for the zip's directory. */
  protected override process(chunk: Uint8Array<ArrayBuffer>, final: boolean): void {
    this.taken = this.into.write(chunk);
    if (final) this.taken = this.into.close();
  }

  async handOn(): Promise<void> {
    const packed = this.packer.readable.getReader();
    for (;;) {
      const { done, value } = await packed.read();
      if (done) break;
      this.ondata(null, value, false);
    }
    this.ondata(null, new Uint8Array(0), true);
  }
}

export type PackedFile = {
  /** Resolves when the next piece may come. */
  readonly write: (piece: string | Uint8Array) => Promise<void>;
  readonly end: () => Promise<void>;
};

/** Begins a file in a zip; the one before must have ended. @param atMs when it was changed, ms since 1970 */
export function packedFile(zip: Zip, name: string, atMs: number): PackedFile {
  const entry = new PackedEntry(name);
  entry.mtime = atMs;
  zip.add(entry);
  const out = entry.handOn();
  const write = (piece: string | Uint8Array, isLast: boolean) => {
    entry.push(typeof piece === 'string' ? strToU8(piece) : piece, isLast);
    return entry.taken;
  };
  return {
    write: (piece) => write(piece, false),
    end: async () => {
      await write('', true);
      await out;
    },
  };
}
