/** A text display behind a port, as its sheet has it: half a byte is taken when the strobe falls, in whatever state it was. */
export class TextPanel {
  private memory = new Uint8Array(128).fill(0x20);
  private at = 0;
  private isFour = false;
  private half: number | null = null;
  private before = 0;
  isOn = false;
  isLit = false;
  hasTwoLines = false;

  /** Every byte that was written to the port. */
  take(port: number): void {
    this.isLit = (port & 0x08) !== 0;
    const falls = (this.before & 0x04) !== 0 && (port & 0x04) === 0;
    if (falls) {
      // What stood on its lines while the strobe was up must stand there still.
      if ((this.before & 0xf3) !== (port & 0xf3)) throw new Error('changed while the strobe fell');
      this.takeHalf(port >> 4, (port & 0x01) !== 0);
    }
    this.before = port;
  }
  private takeHalf(bits: number, isLetter: boolean): void {
    if (!this.isFour) {
      // Its lower lines are not connected, and read as nothing.
      this.obey(bits << 4);
      return;
    }
    if (this.half === null) {
      this.half = bits;
      return;
    }
    const byte = (this.half << 4) | bits;
    this.half = null;
    if (!isLetter) this.obey(byte);
    else {
      this.memory[this.at] = byte;
      this.at = (this.at + 1) % 128;
    }
  }
  private obey(order: number): void {
    if ((order & 0x80) !== 0) this.at = order & 0x7f;
    else if ((order & 0x20) !== 0) {
      this.isFour = (order & 0x10) === 0;
      this.hasTwoLines = (order & 0x08) !== 0;
    } else if ((order & 0x08) !== 0) this.isOn = (order & 0x04) !== 0;
    else if (order === 1) {
      this.memory.fill(0x20);
      this.at = 0;
    }
  }
  /** Its two lines, with "/" between. */
  text(): string {
    const line = (from: number) => String.fromCharCode(...this.memory.slice(from, from + 16)).trimEnd();
    return `${line(0)}/${line(0x40)}`;
  }
}
