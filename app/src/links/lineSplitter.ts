/** Cuts a stream of text, arriving in pieces of any size, into lines. */
export class LineSplitter {
  private rest = '';

  /** Lines completed by this piece. A line that never ends is cut off, so that noise cannot fill the memory. */
  push(piece: string, longest = 4096): string[] {
    const parts = (this.rest + piece).split(/\r\n|\n|\r(?!$)/);
    this.rest = parts.pop() ?? '';
    if (this.rest.length > longest) {
      parts.push(this.rest);
      this.rest = '';
    }
    return parts.map((line) => line.replace(/\r$/, ''));
  }
}
