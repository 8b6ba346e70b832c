/** A MicroPython board on a serial port that the page can choose: the real interpreter answers, at the pace of this machine's clock. */
import type { Page } from '@playwright/test';
import { BoardOnALine } from '@plain-trowel/standins/interpreter/boardForTests';

const TICK_MS = 50;

/** Puts the board behind `navigator.serial` before the page loads. `cut` pulls its plug; `end` lets go of it. */
export async function boardOnPort(page: Page) {
  const line = new BoardOnALine();
  await line.board.boot();
  let isCut = false;
  let busy = Promise.resolve();
  /** One thing after the other: the clock goes on between two writes, not within one. */
  const inTurn = <T>(work: () => Promise<T>): Promise<T> => {
    const done = busy.then(work);
    busy = done.then(
      () => undefined,
      () => undefined,
    );
    return done;
  };
  // Its clock makes up for what it missed, in one turn: turns that wait for each other would hold up the line.
  let lastMs = Date.now();
  let isTurning = false;
  const timer = setInterval(() => {
    if (isTurning) return;
    isTurning = true;
    void inTurn(async () => {
      const nowMs = Date.now();
      await line.wait(Math.min(1000, nowMs - lastMs));
      lastMs = nowMs;
      isTurning = false;
    });
  }, TICK_MS);
  await page.exposeFunction('boardWrite', (bytes: readonly number[]) =>
    inTurn(async () => {
      if (isCut) return false;
      await line.write(Uint8Array.from(bytes));
      return true;
    }),
  );
  await page.exposeFunction('boardRead', () =>
    inTurn(async () => (isCut ? null : [...(await line.read(0))])),
  );
  await page.addInitScript(() => {
    const host = window as unknown as {
      boardWrite: (bytes: number[]) => Promise<boolean>;
      boardRead: () => Promise<number[] | null>;
    };
    // A stream of an earlier opening takes nothing any more.
    let opening = 0;
    const newPort = () => ({
      readable: null as ReadableStream<Uint8Array> | null,
      writable: null as WritableStream<Uint8Array> | null,
      open() {
        opening += 1;
        const own = opening;
        this.readable = new ReadableStream<Uint8Array>({
          async pull(controller) {
            while (opening === own) {
              const bytes = await host.boardRead();
              if (bytes === null) {
                controller.error(new DOMException('gone', 'NetworkError'));
                return;
              }
              if (bytes.length > 0) {
                controller.enqueue(Uint8Array.from(bytes));
                return;
              }
              await new Promise((done) => setTimeout(done, 20));
            }
            controller.close();
          },
        });
        this.writable = new WritableStream<Uint8Array>({
          async write(bytes) {
            if (!(await host.boardWrite([...bytes]))) throw new DOMException('gone', 'NetworkError');
          },
        });
        return Promise.resolve();
      },
      close() {
        opening += 1;
        return Promise.resolve();
      },
    });
    const port = newPort();
    Object.defineProperty(Navigator.prototype, 'serial', {
      configurable: true,
      value: { requestPort: () => Promise.resolve(port), getPorts: () => Promise.resolve([]) },
    });
  });
  return {
    line,
    cut: () => (isCut = true),
    plugIn: () => (isCut = false),
    end: () => clearInterval(timer),
  };
}
