/** Sixteen channels of one board at ten lines a second, all shown on one time axis. */
import type { Browser, Page } from '@playwright/test';
import { addPlot, emptyGarden } from '../core/src/garden/edits/plots.ts';
import { writeGardenFile } from '../core/src/garden/document/gardenFile.ts';
import type { Garden } from '../core/src/garden/document/schema.ts';

const CHANNELS = 16;

/** One plot whose board prints that many names, each known as a moisture channel. */
export function manyChannels(channelCount: number): Garden {
  const empty = emptyGarden('Many channels', 'UTC', {
    random: () => 0.5,
    nowIso: '2026-01-01T00:00:00.000Z',
  });
  const one = addPlot(
    empty,
    {
      plotName: 'Bench pot',
      plant: '',
      probeLabel: 'N0',
      probeKind: 'capacitive stick',
      colour: 'none',
      depthCm: 5,
      pin: '',
      streamName: 'n0',
      board: { name: 'Bench board', traits: '3.3 V board, 12-bit inputs', adcBits: 12, supplyV: 3.3 },
      pump: null,
    },
    () => 0.25,
  );
  const [channel] = one.garden.channels;
  if (!channel) throw new Error('no channel');
  const channels = Array.from({ length: channelCount }, (_, at) => ({
    ...channel,
    id: at === 0 ? channel.id : `channel-n${at}`,
    probeId: at === 0 ? channel.probeId : null,
    label: `Name ${at}`,
    streamName: `n${at}`,
  }));
  return { ...one.garden, channels };
}

/** The garden opened as a file, its board connected, All channels open and every name heard. */
export async function openManyChannels(browser: Browser, address: string): Promise<Page> {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.addInitScript('globalThis.__name = (named) => named');
  await page.addInitScript((channels) => {
    let feed: ReadableStreamDefaultController<Uint8Array> | null = null;
    let sent = 0;
    const pair = (at: number) =>
      `n${at}=${Math.round(1500 + 200 * Math.sin(sent / 300 + at) + (((sent + at) * 7919) % 13))}`;
    const line = () => {
      sent += 1;
      return `${Array.from({ length: channels }, (_, at) => pair(at)).join(' ')}\r\n`;
    };
    const port = {
      readable: new ReadableStream<Uint8Array>({ start: (controller) => void (feed = controller) }),
      open: () => Promise.resolve(),
      close: () => Promise.resolve(),
    };
    Object.defineProperty(Navigator.prototype, 'serial', {
      configurable: true,
      get: () => ({ requestPort: () => Promise.resolve(port) }),
    });
    Object.assign(globalThis, {
      every100Ms: () => setInterval(() => feed?.enqueue(new TextEncoder().encode(line())), 100),
    });
  }, CHANNELS);
  await page.goto(address);
  await page.locator('input[type=file]').setInputFiles({
    name: 'many.garden.json',
    mimeType: 'application/json',
    buffer: Buffer.from(writeGardenFile(manyChannels(CHANNELS))),
  });
  await page.waitForURL(/bench\/readout/);
  await page.getByText('A board on a serial port').click();
  await page.getByRole('button', { name: 'Choose the port' }).click();
  await page.waitForTimeout(500);
  await page.evaluate(() => (globalThis as unknown as { every100Ms: () => void }).every100Ms());
  await page.getByRole('link', { name: /^All channels/ }).click();
  await page
    .getByText(`Name ${CHANNELS - 1}`)
    .first()
    .waitFor();
  await page.waitForTimeout(5000);
  return page;
}
