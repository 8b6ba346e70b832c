import fc from 'fast-check';
import { expect, test } from 'vitest';
import { PacketGuard } from './packetGuard.ts';

/** Sends chunks through; gives what came out, and whether it was ended. */
async function through(chunks: readonly Buffer[], most: number) {
  const guard = new PacketGuard(most);
  const out: Buffer[] = [];
  const ended: Error[] = [];
  guard.on('data', (part: Buffer) => out.push(part));
  guard.on('error', (error) => ended.push(error));
  for (const chunk of chunks) {
    if (ended.length > 0) break;
    await new Promise((done) => guard.write(chunk, done));
  }
  await new Promise(setImmediate);
  return { isEnded: ended.length > 0, out: Buffer.concat(out) };
}

/** A packet with so many bytes after its header. MQTT 3.1.1, 2.2.3, the encoding of its example. */
function packet(length: number): Buffer {
  const header = [0x30];
  let left = length;
  do {
    header.push((left % 128) | (left >= 128 ? 128 : 0));
    left = Math.floor(left / 128);
  } while (left > 0);
  return Buffer.concat([Buffer.from(header), Buffer.alloc(length, 0xff)]);
}

// MQTT 3.1.1, 2.2.3: "0 to 127 in one byte, 128 to 16 383 in two, 16 384 to 2 097 151 in three".
test.each([0, 1, 127, 128, 16_383, 16_384, 65_536])(
  'a packet of %d bytes goes through as it is',
  async (length) => {
    const whole = Buffer.concat([packet(length), packet(0), packet(3)]);
    expect(await through([whole], 65_536)).toEqual({ isEnded: false, out: whole });
  },
);

test('however it is cut', async () => {
  await fc.assert(
    fc.asyncProperty(
      fc.array(fc.integer({ min: 0, max: 300 }), { maxLength: 12 }),
      fc.array(fc.integer({ min: 1, max: 50 }), { minLength: 1, maxLength: 50 }),
      async (lengths, cuts) => {
        const whole = Buffer.concat(lengths.map(packet));
        const chunks: Buffer[] = [];
        for (let at = 0, turn = 0; at < whole.length; turn += 1) {
          const size = cuts[turn % cuts.length] ?? 1;
          chunks.push(whole.subarray(at, at + size));
          at += size;
        }
        const { isEnded, out } = await through(chunks, 300);
        expect(isEnded).toBe(false);
        expect(out.equals(whole)).toBe(true);
      },
    ),
    { numRuns: 100, seed: 3 },
  );
});

test.each([
  ['one byte too long', packet(65_537)],
  ['of a length in five bytes', Buffer.from([0x30, 0x80, 0x80, 0x80, 0x80, 0x01])],
])('a packet %s ends the stream', async (_, bytes) => {
  expect((await through([packet(5), bytes], 65_536)).isEnded).toBe(true);
});
