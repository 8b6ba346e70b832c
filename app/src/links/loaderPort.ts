import type { LoaderPort } from '@plain-trowel/core/sketch/loader/port';

const BAUD_RATE = 115_200;
const REOPEN_EVERY_MS = 250;
const NOTHING = new Uint8Array();

const pause = (ms: number) => new Promise<void>((done) => setTimeout(done, ms));

/** The streams of a port for as long as it is open. */
type Opened = {
  readonly reader: ReadableStreamDefaultReader<Uint8Array>;
  readonly writer: WritableStreamDefaultWriter<Uint8Array>;
  /** A read that came too late for one turn is the first of the next: nothing is lost between two of them. */
  pending: Promise<Uint8Array> | null;
};

async function opened(port: SerialPort): Promise<Opened> {
  await port.open({ baudRate: BAUD_RATE });
  const reader = port.readable?.getReader();
  const writer = port.writable?.getWriter();
  if (!reader || !writer) throw new Error('the port has no lines');
  return { reader, writer, pending: null };
}

async function shut(port: SerialPort, { reader, writer, pending }: Opened): Promise<void> {
  pending?.catch(() => undefined);
  await reader.cancel().catch(() => undefined);
  reader.releaseLock();
  await writer.close().catch(() => undefined);
  await port.close().catch(() => undefined);
}

async function nextOf({ reader }: Opened): Promise<Uint8Array> {
  const { value, done } = await reader.read();
  if (done) throw new Error('the port has ended');
  return value;
}

/** An opened serial port as the loader uses it. `close` gives the port back, shut. */
export async function openLoaderPort(
  port: SerialPort,
): Promise<LoaderPort & { readonly close: () => Promise<void> }> {
  let now = await opened(port);
  return {
    write: (bytes) => now.writer.write(bytes),
    read: async (waitMs) => {
      now.pending ??= nextOf(now);
      const bytes = await Promise.race([now.pending, pause(waitMs).then(() => null)]);
      if (bytes === null) return NOTHING;
      now.pending = null;
      return bytes;
    },
    reopen: async (waitMs) => {
      await shut(port, now);
      for (let waitedMs = 0; waitedMs < waitMs; waitedMs += REOPEN_EVERY_MS) {
        await pause(REOPEN_EVERY_MS);
        try {
          now = await opened(port);
          return true;
        } catch {
          // Not back yet.
        }
      }
      return false;
    },
    close: () => shut(port, now),
  };
}
