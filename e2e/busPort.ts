/** An adapter on a serial port that the page can choose, with made-up probes behind it: the desk's own link code runs as with a real one. */
import type { Page } from '@playwright/test';
import { BUILT_IN_MAPS } from '@plain-trowel/core/bus/registers';
import { Bus } from '@plain-trowel/standins/busProbe/bus';
import { newBusProbe, type BusFault } from '@plain-trowel/standins/busProbe/busProbe';

export type BusAdapter = {
  /** From the next question on, every answer is spoiled in this way. */
  readonly setFault: (fault: BusFault) => void;
  /** Bytes that come without having been asked for. */
  readonly babble: (bytes: readonly number[]) => Promise<void>;
  /** The plug comes out. */
  readonly pull: () => Promise<void>;
  /** Speed that the page opened the port with. */
  readonly openedAt: () => Promise<number | undefined>;
};

type InPage = {
  busFeeds: (bytes: readonly number[]) => void;
  busIsPulled: () => void;
  busOpenedAt?: number;
  busHears: (bytes: number[]) => Promise<{ bytes: number[]; delayMs: number }[]>;
};

export async function plugInAdapter(page: Page, addresses: readonly number[]): Promise<BusAdapter> {
  const [map] = BUILT_IN_MAPS.filter((one) => one.id === 'three');
  if (!map) throw new Error('no map of three fields');
  const bus = new Bus(addresses.map((address) => newBusProbe(address, map, address)));
  await page.exposeFunction('busHears', (bytes: number[]) =>
    bus.hear(bytes).map((answer) => ({ bytes: [...answer.bytes], delayMs: answer.delayMs })),
  );
  await page.addInitScript(() => {
    const inPage = globalThis as unknown as InPage;
    let feed: ReadableStreamDefaultController<Uint8Array> | null = null;
    const port = {
      readable: null as ReadableStream<Uint8Array> | null,
      writable: null as WritableStream<Uint8Array> | null,
      open: ({ baudRate }: { baudRate: number }) => {
        inPage.busOpenedAt = baudRate;
        port.readable = new ReadableStream({ start: (controller) => void (feed = controller) });
        port.writable = new WritableStream({
          write: async (bytes) => {
            for (const answer of await inPage.busHears([...bytes]))
              setTimeout(() => {
                inPage.busFeeds(answer.bytes);
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
    inPage.busFeeds = (bytes) => {
      if (port.readable) feed?.enqueue(Uint8Array.from(bytes));
    };
    inPage.busIsPulled = () => {
      const { readable } = port;
      port.readable = null;
      port.writable = null;
      if (readable) feed?.error(new DOMException('gone', 'NetworkError'));
    };
    Object.defineProperty(Navigator.prototype, 'serial', {
      configurable: true,
      get: () => ({ requestPort: () => Promise.resolve(port) }),
    });
  });
  return {
    setFault: (fault) => {
      bus.probes = bus.probes.map((probe) => ({ ...probe, fault, faultFrac: 1 }));
    },
    babble: (bytes) =>
      page.evaluate((sent) => {
        (globalThis as unknown as InPage).busFeeds(sent);
      }, bytes),
    pull: () =>
      page.evaluate(() => {
        (globalThis as unknown as InPage).busIsPulled();
      }),
    openedAt: () => page.evaluate(() => (globalThis as unknown as InPage).busOpenedAt),
  };
}
