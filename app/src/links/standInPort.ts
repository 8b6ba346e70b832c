import type { Bus } from '@plain-trowel/standins/busProbe/bus';
import type { BusPort } from './busLink.ts';

/** A serial port in the page with a made-up bus behind it, so that the desk's own link code runs as with a real adapter. */
export function standInPort(bus: Bus): BusPort {
  let feed: ReadableStreamDefaultController<Uint8Array> | null = null;
  const port: { readable: BusPort['readable']; writable: BusPort['writable'] } & Pick<
    BusPort,
    'open' | 'close'
  > = {
    readable: null,
    writable: null,
    open: () => {
      port.readable = new ReadableStream<Uint8Array>({ start: (controller) => void (feed = controller) });
      port.writable = new WritableStream<Uint8Array>({
        write: (bytes) => {
          for (const answer of bus.hear(bytes))
            setTimeout(() => {
              if (port.readable) feed?.enqueue(answer.bytes);
            }, answer.delayMs);
        },
      });
      return Promise.resolve();
    },
    close: () => {
      port.readable = null;
      port.writable = null;
      return Promise.resolve();
    },
  };
  return port;
}
