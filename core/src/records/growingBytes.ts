const encoder = new TextEncoder();
export const inUtf8 = (text: string): Uint8Array => encoder.encode(text);

/** So many values of which the bytes are worth remembering: more than a converter of 16 bits has counts. */
export const MOST_REMEMBERED = 70_000;

/** Bytes that grow at their end: for texts of millions of rows, where joining strings would take most of the time. */
export class GrowingBytes {
  private bytes: Uint8Array<ArrayBuffer>;
  private used = 0;

  /** @param room so many bytes are set aside at once; more come when they are needed */
  constructor(room = 65_536) {
    this.bytes = new Uint8Array(room);
  }

  put(piece: Uint8Array): void {
    this.keepRoom(piece.length);
    this.bytes.set(piece, this.used);
    this.used += piece.length;
  }

  /** A short text of ASCII alone: for few letters quicker than to encode it. */
  putAscii(text: string): void {
    this.keepRoom(text.length);
    for (let at = 0; at < text.length; at += 1) this.bytes[this.used + at] = text.charCodeAt(at);
    this.used += text.length;
  }

  /** What has come together, as a copy; begins anew. */
  take(): Uint8Array<ArrayBuffer> {
    const taken = this.bytes.slice(0, this.used);
    this.used = 0;
    return taken;
  }

  private keepRoom(more: number): void {
    if (this.used + more <= this.bytes.length) return;
    const wider = new Uint8Array(Math.max(this.bytes.length * 2, this.used + more));
    wider.set(this.bytes.subarray(0, this.used));
    this.bytes = wider;
  }
}
