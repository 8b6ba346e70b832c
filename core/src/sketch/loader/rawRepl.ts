/**
 * The interpreter's raw mode: code in, output and error out, without echo. Code goes by raw paste with the board's own flow control where the board has it,
 * else in small blocks with pauses.
 */
import { type Listener, LoadStop, bytesOf } from './port.ts';

const [CTRL_A, CTRL_B, CTRL_C, CTRL_D, CTRL_E] = ['\u0001', '\u0002', '\u0003', '\u0004', '\u0005'] as const;
export const INTERRUPT = CTRL_C;
/** Leaves raw mode, and does nothing in the ordinary one. */
export const LEAVE_RAW = CTRL_B;

const ENTER_WAIT_MS = 2000;
const ASK_PASTE_WAIT_MS = 600;
const RUN_WAIT_MS = 10_000;
const BLOCK_BYTES = 128;
const BLOCK_PAUSE_MS = 8;

export type Ran = { readonly out: string; readonly error: string };

export class RawRepl {
  private canPaste: boolean | null = null;

  constructor(
    private readonly line: Listener,
    private readonly pause: (ms: number) => Promise<void>,
  ) {}

  /** False: nobody there speaks it. */
  async enter(): Promise<boolean> {
    await this.line.send(`\r${CTRL_A}`);
    return (await this.line.until(/raw REPL; CTRL-B to exit\r?\n>/, ENTER_WAIT_MS)) !== null;
  }

  /** Runs code to its end. */
  async run(code: string, waitMs = RUN_WAIT_MS): Promise<Ran> {
    await this.begin(code);
    const out = await this.line.expect(CTRL_D, waitMs);
    const error = await this.line.expect(CTRL_D, waitMs);
    await this.line.expect('>', waitMs);
    return { out: out.slice(0, -1), error: error.slice(0, -1) };
  }

  /** As `run`; an error of the code ends loading. */
  async must(code: string, waitMs = RUN_WAIT_MS): Promise<string> {
    const { out, error } = await this.run(code, waitMs);
    if (error === '') return out;
    throw new LoadStop(/\b(28|ENOSPC)\b/.test(error) ? 'disk-full' : 'board-refused', lastLine(error));
  }

  /** Hands over code whose end nobody waits for, because the board restarts by it. */
  async begin(code: string): Promise<void> {
    if (this.canPaste !== false && (await this.paste(code))) return;
    const bytes = bytesOf(code);
    for (let from = 0; from < bytes.length; from += BLOCK_BYTES) {
      await this.line.send(bytes.subarray(from, from + BLOCK_BYTES));
      await this.pause(BLOCK_PAUSE_MS);
    }
    await this.line.send(CTRL_D);
    await this.line.expect('OK', RUN_WAIT_MS);
  }

  /** Drops what was typed and not run yet. */
  async drop(): Promise<void> {
    await this.line.send(CTRL_C);
    await this.pause(BLOCK_PAUSE_MS);
    this.line.forget();
  }

  /** False: this board has no raw paste, and nothing of the code was sent. */
  private async paste(code: string): Promise<boolean> {
    await this.line.send(`${CTRL_E}A${CTRL_A}`);
    const answer = await this.line.until(/R[\u0000\u0001]|raw REPL; CTRL-B to exit\r?\n>/, ASK_PASTE_WAIT_MS);
    if (answer?.endsWith('R\u0001') !== true) {
      this.canPaste = false;
      // A board that does not know it has taken the letter for code.
      if (answer === null) await this.drop();
      return false;
    }
    this.canPaste = true;
    // Two bytes, the lower first: so many bytes may be under way at once.
    const size = await this.line.expect(/^[\s\S]{2}/, ENTER_WAIT_MS);
    const step = Math.max(1, size.charCodeAt(0) + size.charCodeAt(1) * 256);
    const bytes = bytesOf(code);
    let free = step;
    for (let from = 0; from < bytes.length;) {
      if (free === 0) {
        const more = await this.line.expect(/[\u0001\u0004]/, RUN_WAIT_MS);
        if (more.endsWith(CTRL_D)) {
          await this.line.send(CTRL_D);
          throw new LoadStop('board-refused', 'it broke off what was pasted');
        }
        free += step;
      }
      const part = bytes.subarray(from, from + free);
      await this.line.send(part);
      from += part.length;
      free -= part.length;
    }
    await this.line.send(CTRL_D);
    // Windows that were offered and not needed come before its acknowledgement.
    await this.line.expect(/^\u0001*\u0004/, RUN_WAIT_MS);
    return true;
  }
}

const lastLine = (text: string): string => text.trim().split(/\r?\n/).at(-1) ?? '';
