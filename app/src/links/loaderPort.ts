import type { LoaderPort } from '@plain-trowel/core/sketch/loader/port';

const BAUD_RATE = 115_200;

/** An opened serial port as the loader uses it. `close` gives the port back, shut. */
export async function openLoaderPort(
  port: SerialPort,
): Promise<LoaderPort & { readonly close: () => Promise<void> }> {
  await port.open({ baudRate: BAUD_RATE });
  const reader = port.readable?.getReader();
  const writer = port.writable?.getWriter();
  if (!reader || !writer) throw new Error('the port has no lines');
  // A read that came too late for one turn is the first of the next: nothing is lost between two of them.
  let pending: Promise<Uint8Array> | null = null;
  const next = async (): Promise<Uint8Array> => {
    const { value, done } = await reader.read();
    if (done) throw new Error('the port has ended');
    return value;
  };
  return {
    write: (bytes) => writer.write(bytes),
    read: async (waitMs) => {
      pending ??= next();
      const late = new Promise<null>((done) => setTimeout(() => done(null), waitMs));
      const bytes = await Promise.race([pending, late]);
      if (bytes === null) return NOTHING;
      pending = null;
      return bytes;
    },
    close: async () => {
      pending?.catch(() => undefined);
      await reader.cancel().catch(() => undefined);
      reader.releaseLock();
      await writer.close().catch(() => undefined);
      await port.close().catch(() => undefined);
    },
  };
}

const NOTHING = new Uint8Array();
