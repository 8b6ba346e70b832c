import { Transform, type TransformCallback } from 'node:stream';

/**
 * Lets a stream of MQTT packets through as it is, and ends it at a packet that says it is longer than any of ours. (MQTT 3.1.1, 2.2.3: one byte of kind, then the
 * remaining length in one to four bytes of seven bits, the lowest first.)
 */
export class PacketGuard extends Transform {
  /** Bytes of the packet under way that are still to come; null while its header is read. */
  private left: number | null = null;
  private header: { length: number; shift: number; isKindRead: boolean } = newHeader();

  constructor(private readonly mostBytes: number) {
    super();
  }

  override _transform(chunk: Buffer, _encoding: BufferEncoding, done: TransformCallback): void {
    for (let at = 0; at < chunk.length;) {
      if (this.left !== null) {
        const taken = Math.min(this.left, chunk.length - at);
        at += taken;
        this.left -= taken;
        if (this.left === 0) this.left = null;
        continue;
      }
      if (!this.readHeader(chunk[at] ?? 0)) {
        done(new Error('A packet is too long.'));
        return;
      }
      at += 1;
    }
    done(null, chunk);
  }

  private readHeader(byte: number): boolean {
    const { header } = this;
    if (!header.isKindRead) {
      header.isKindRead = true;
      return true;
    }
    header.length += (byte & 0x7f) * 2 ** header.shift;
    header.shift += 7;
    if (header.length > this.mostBytes || header.shift > 28) return false;
    if ((byte & 0x80) !== 0) return true;
    this.left = header.length === 0 ? null : header.length;
    this.header = newHeader();
    return true;
  }
}

const newHeader = () => ({ length: 0, shift: 0, isKindRead: false });
