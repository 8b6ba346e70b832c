import { strToU8, type AsyncFlateStreamHandler, type Zip, type ZipInputFile } from 'fflate';

/** How a zip marks what is packed with deflate. */
const DEFLATE = 8;
/** What gzip (RFC 1952) puts before what it packed, where it says nothing of its own; behind it come the sum of all and its length. */
const GZIP_HEAD = 10;
const GZIP_TAIL = 8;

/** A file within a zip, packed and summed by the browser itself: some six times as quick as in JavaScript. A gzip file is the same, with another head and tail. */
class PackedEntry implements ZipInputFile {
  readonly compression = DEFLATE;
  size = 0;
  crc = 0;
  ondata: AsyncFlateStreamHandler = () => undefined;
  private readonly packer = new CompressionStream('gzip');
  private readonly into = this.packer.writable.getWriter();

  constructor(
    readonly filename: string,
    readonly mtime: number,
  ) {}

  write(bytes: Uint8Array<ArrayBuffer>): Promise<void> {
    this.size += bytes.length;
    return this.into.write(bytes);
  }

  close(): Promise<void> {
    return this.into.close();
  }

  /** Hands on what is packed, all but head and tail. Resolves when that was all. */
  async handOn(): Promise<void> {
    let isHead = true;
    let held = new Uint8Array(0);
    // Left on an error, the stream takes nothing more: who writes is told.
    for await (const piece of piecesOf(this.packer.readable)) {
      held = joined(held, piece);
      if (held.length < (isHead ? GZIP_HEAD : 0) + GZIP_TAIL) continue;
      if (isHead && held[3] !== 0) throw new Error('the head of a gzip file says more than expected');
      this.ondata(null, held.slice(isHead ? GZIP_HEAD : 0, -GZIP_TAIL), false);
      held = held.slice(-GZIP_TAIL);
      isHead = false;
    }
    this.crc = new DataView(held.buffer).getUint32(0, true);
    this.ondata(null, new Uint8Array(0), true);
  }
}

/** What a stream brings; cancelled where nobody takes any more. */
async function* piecesOf(stream: ReadableStream<Uint8Array>): AsyncGenerator<Uint8Array> {
  const reader = stream.getReader();
  let isOver = false;
  try {
    for (;;) {
      const { done, value } = await reader.read();
      isOver = done;
      if (done) return;
      yield value;
    }
  } finally {
    if (!isOver) await reader.cancel();
  }
}

function joined(first: Uint8Array<ArrayBuffer>, second: Uint8Array): Uint8Array<ArrayBuffer> {
  const both = new Uint8Array(first.length + second.length);
  both.set(first);
  both.set(second, first.length);
  return both;
}

export type PackedFile = {
  /** Resolves when the next piece may come. */
  readonly write: (piece: string | Uint8Array<ArrayBuffer>) => Promise<void>;
  readonly end: () => Promise<void>;
};

/** Begins a file in a zip; the one before must have ended. @param atMs when it was changed, ms since 1970 */
export function packedFile(zip: Zip, name: string, atMs: number): PackedFile {
  const entry = new PackedEntry(name, atMs);
  zip.add(entry);
  const out = entry.handOn();
  // Told by `end`; where that is never reached, another error was told before.
  out.catch(() => undefined);
  return {
    write: (piece) => entry.write(typeof piece === 'string' ? new Uint8Array(strToU8(piece)) : piece),
    end: async () => {
      await Promise.all([entry.close(), out]);
    },
  };
}
