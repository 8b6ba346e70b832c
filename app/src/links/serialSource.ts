import type { Garden } from '@plain-trowel/core/garden/document/schema';
import { BoardTalk, type BoardAtTheLine } from '@plain-trowel/core/following/boardTalk';
import { LineSplitter } from './lineSplitter.ts';
import type { Emit, LineSource, Orders } from './lineSource.ts';

export const SERIAL_SPEEDS = [9600, 19_200, 38_400, 57_600, 115_200, 230_400, 460_800, 921_600] as const;

/** True when this browser can open a serial port at all. */
export const serialIsPossible = (): boolean => 'serial' in navigator;

/** A real board on a serial port (Web Serial). Opened by a click, because the browser asks the person which port. */
export class SerialSource implements LineSource {
  readonly label: string;
  readonly simulated = false;
  readonly clock = null;
  readonly hands = null;
  private reader: ReadableStreamDefaultReader<Uint8Array> | null = null;
  private stopped = false;
  private finished: Promise<void> = Promise.resolve();
  private readonly talk: BoardTalk;
  private typing: Promise<void> = Promise.resolve();

  constructor(
    readonly port: SerialPort,
    readonly boardId: string,
    readonly baudRate: number,
    private readonly boardName: string,
    garden: Garden,
    /** It is known to run a program of ours, so it is asked at once what it runs. */
    private readonly isOurs = false,
  ) {
    this.label = `${boardName} on a serial port, ${baudRate} baud`;
    this.talk = new BoardTalk(garden, boardId, false, (text) => this.type(text));
  }

  /** The same port and board once more, perhaps at another speed. */
  again(baudRate: number): SerialSource {
    return new SerialSource(this.port, this.boardId, baudRate, this.boardName, this.talk.garden);
  }

  /** A board decides by itself once it has said that it runs a program of ours. */
  get can(): LineSource['can'] {
    return { decides: this.talk.board !== null, records: true, isLive: true };
  }

  get orders(): Orders | null {
    return this.talk.board ? this.talk : null;
  }

  boardAt(boardId: string): BoardAtTheLine | null {
    return boardId === this.boardId ? this.talk.board : null;
  }

  setGarden(garden: Garden): void {
    this.talk.garden = garden;
  }

  start(emit: Emit): void {
    emit({ kind: 'status', status: 'opening' });
    this.finished = this.run(emit);
  }

  async stop(): Promise<void> {
    this.stopped = true;
    await this.reader?.cancel().catch(() => undefined);
    await this.finished;
  }

  nowMs(): number {
    return Date.now();
  }

  /** One line after the other; a port that has gone is told by reading it. */
  private type(text: string): void {
    this.typing = this.typing
      .then(async () => {
        const writer = this.port.writable?.getWriter();
        if (!writer) return;
        await writer.write(new TextEncoder().encode(`${text}\n`));
        writer.releaseLock();
      })
      .catch(() => undefined);
  }

  private async run(emit: Emit): Promise<void> {
    try {
      await this.port.open({ baudRate: this.baudRate });
    } catch (error) {
      emit({ kind: 'status', status: 'failed', message: openProblem(error) });
      return;
    }
    emit({ kind: 'status', status: 'open' });
    if (this.isOurs) this.type('version');
    const problem = await this.readAll(emit);
    await this.typing;
    await this.port.close().catch(() => undefined);
    if (!this.stopped) emit({ kind: 'status', status: 'ended', message: problem });
  }

  /** Reads until the port ends; the sentence says how it ended. */
  private async readAll(emit: Emit): Promise<string> {
    const splitter = new LineSplitter();
    const decoder = new TextDecoder();
    // A framing or parity error ends one readable; the port then offers the next until it is really gone.
    let broken: ReadableStream | null = null;
    while (this.port.readable && this.port.readable !== broken && !this.stopped) {
      const { readable } = this.port;
      this.reader = readable.getReader();
      try {
        for (;;) {
          const { value, done } = await this.reader.read();
          if (done)
            return 'The board stopped sending. Check that it is still plugged in, then connect again.';
          emit({ kind: 'bytes', bytes: value, baudRate: this.baudRate });
          const texts = splitter.push(decoder.decode(value, { stream: true }));
          if (texts.length === 0) continue;
          const atMs = Date.now();
          emit({ kind: 'lines', lines: texts.map((text) => ({ boardId: this.boardId, text, atMs })) });
          for (const text of texts) this.talk.hear(text, atMs).forEach(emit);
          this.talk.look(atMs);
        }
      } catch {
        // Handled by the loop: either there is another readable, or the port has been pulled.
        broken = readable;
      } finally {
        this.reader.releaseLock();
      }
    }
    return 'The board was unplugged. Nothing read so far is lost; plug it in and connect again.';
  }
}

/** Why a port did not open, and what to do. */
export function openProblem(error: unknown): string {
  const name = error instanceof DOMException ? error.name : '';
  if (name === 'NetworkError' || name === 'InvalidStateError')
    return 'The port could not be opened: another program or tab holds it. Close that one and connect again.';
  if (name === 'SecurityError' || name === 'NotAllowedError')
    return 'The browser refused the port. Allow serial ports for this page in the browser’s site settings, then connect again.';
  return 'The port could not be opened. Unplug the board, plug it in again, and connect once more.';
}
