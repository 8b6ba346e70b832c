import { MOST_LINE_CHARS } from '@plain-trowel/core/signal/line';

/** Cuts a stream of text, arriving in pieces of any size, into lines. */
export class LineSplitter {
  private rest = '';
  /** Inside a line that was cut off: what follows up to its end belongs to it and is dropped. */
  private isCut = false;

  /**
   * Lines completed by this piece. A line that never ends is given out once, cut a letter beyond what the parser takes, so that it is told as too long and noise
   * cannot fill the memory.
   */
  push(piece: string, longest = MOST_LINE_CHARS): string[] {
    const parts = (this.rest + piece).split(/\r\n|\n|\r(?!$)/);
    this.rest = parts.pop() ?? '';
    const lines: string[] = [];
    for (const part of parts) {
      if (!this.isCut) lines.push(part.replace(/\r$/, '').slice(0, longest + 1));
      this.isCut = false;
    }
    if (this.isCut) this.rest = this.rest.endsWith('\r') ? '\r' : '';
    else if (this.rest.length > longest) {
      lines.push(this.rest.slice(0, longest + 1));
      this.rest = '';
      this.isCut = true;
    }
    return lines;
  }
}
