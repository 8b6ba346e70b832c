import { inflateSync, strFromU8, strToU8 } from 'fflate';
import { afterEach, expect, test, vi } from 'vitest';
import type { Packing } from '../data/packing.ts';
import { packingBeside } from './packing.ts';

afterEach(() => vi.unstubAllGlobals());

const bytesOf = (text: string) => new Uint8Array(strToU8(text));

/** Packs texts as one file, and unpacks it with another program's inflate. */
async function packed(packing: Packing, texts: readonly string[]) {
  await packing.begin();
  const pieces: Uint8Array[] = [];
  for (const text of texts) pieces.push(await packing.write(bytesOf(text)));
  const { packed, crc } = await packing.end();
  const all = Uint8Array.from([...pieces, packed].flatMap((piece) => [...piece]));
  return { text: strFromU8(inflateSync(all)), crc };
}

/** The sum of "123456789" that the catalogues of CRCs give. */
const CHECK = 0xcbf43926;

test('where there are no workers it packs here, file after file', async () => {
  vi.stubGlobal('Worker', undefined);
  const packing = await packingBeside();
  expect(await packed(packing, ['1234', '', '56789'])).toEqual({ text: '123456789', crc: CHECK });
  const rows = Array.from({ length: 20_000 }, (_, at) => `row ${at * 7919}\r\n`);
  expect((await packed(packing, rows)).text).toBe(rows.join(''));
  expect(await packed(packing, [])).toEqual({ text: '', crc: 0 });
});

test('a worker that cannot start is done without', async () => {
  vi.stubGlobal(
    'Worker',
    class extends EventTarget {
      onerror: ((event: { message: string }) => void) | null = null;
      constructor() {
        super();
        setTimeout(() => this.onerror?.({ message: '' }));
      }
      postMessage() {}
      terminate() {}
    },
  );
  expect(await packed(await packingBeside(), ['123456789'])).toMatchObject({ crc: CHECK });
});
