import type { Page } from '@playwright/test';

/** A board on a serial port: sticks that take their time, printed by name a few times a second. */
export type StubBoard = {
  /** What stands before each stick's number; one is printed alone in a sentence. */
  readonly names: readonly string[];
  readonly tauS: number;
};

const AIR = 3000;
const WATER = 1250;
const EVERY_MS = 250;

/** Puts the board behind `navigator.serial` before the page loads; `putInto` moves its sticks. */
export async function stubSerial(page: Page, board: StubBoard): Promise<void> {
  await page.addInitScript(
    ({ names, tauS, air, water, everyMs }) => {
      let feed: ReadableStreamDefaultController<Uint8Array> | null = null;
      let target = air;
      let seed = 7;
      const chance = () => (seed = (seed * 16_807) % 2_147_483_647) / 2_147_483_647;
      const sticks = names.map((name, at) => ({ name, offset: 14 * at, counts: air }));
      const port = {
        readable: new ReadableStream<Uint8Array>({ start: (controller) => void (feed = controller) }),
        open: () => Promise.resolve(),
        close: () => Promise.resolve(),
        getInfo: () => ({}),
      };
      setInterval(() => {
        const printed = sticks.map((stick) => {
          stick.counts += (target - stick.counts) * (1 - Math.exp(-everyMs / 1000 / tauS));
          const noise = 8 * (chance() + chance() + chance() - 1.5);
          return `${stick.name}${Math.round(stick.counts + stick.offset + noise)}`;
        });
        feed?.enqueue(new TextEncoder().encode(`${printed.join(' ')}\r\n`));
      }, everyMs);
      Object.defineProperty(Navigator.prototype, 'serial', {
        configurable: true,
        get: () => ({
          requestPort: () => Promise.resolve(port),
          getPorts: () => Promise.resolve([]),
          addEventListener: () => undefined,
          removeEventListener: () => undefined,
        }),
      });
      Object.assign(globalThis, {
        putInto: (place: 'air' | 'water') => (target = place === 'air' ? air : water),
      });
    },
    { ...board, air: AIR, water: WATER, everyMs: EVERY_MS },
  );
}

/** Moves every stick of the board. */
export const putInto = (page: Page, place: 'air' | 'water'): Promise<void> =>
  page.evaluate(
    (where) => (globalThis as unknown as { putInto: (to: string) => void }).putInto(where),
    place,
  );
