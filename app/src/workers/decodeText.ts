/** Text files as programs and spreadsheets write them: the encoding is found, named, and turned into text. */
export type Decoded = {
  readonly text: string;
  readonly encoding: 'UTF-8' | 'UTF-16 little-endian' | 'UTF-16 big-endian' | 'Windows-1252';
};

/** How much is looked at to tell UTF-16 without a mark: nearly every second byte of plain text is zero there. */
const LOOK_BYTES = 4096;

export function decodeText(bytes: Uint8Array): Decoded {
  const utf16 = utf16Of(bytes);
  if (utf16)
    return {
      text: new TextDecoder(utf16 === 'UTF-16 little-endian' ? 'utf-16le' : 'utf-16be').decode(bytes),
      encoding: utf16,
    };
  try {
    return { text: new TextDecoder('utf-8', { fatal: true }).decode(bytes), encoding: 'UTF-8' };
  } catch {
    return { text: new TextDecoder('windows-1252').decode(bytes), encoding: 'Windows-1252' };
  }
}

function utf16Of(bytes: Uint8Array): 'UTF-16 little-endian' | 'UTF-16 big-endian' | null {
  if (bytes[0] === 0xff && bytes[1] === 0xfe) return 'UTF-16 little-endian';
  if (bytes[0] === 0xfe && bytes[1] === 0xff) return 'UTF-16 big-endian';
  const look = bytes.subarray(0, LOOK_BYTES);
  let [even, odd] = [0, 0];
  look.forEach((byte, at) => {
    if (byte !== 0) return;
    if (at % 2 === 0) even += 1;
    else odd += 1;
  });
  const half = look.length / 2;
  if (half < 4) return null;
  if (odd > half * 0.7 && even < half * 0.1) return 'UTF-16 little-endian';
  return even > half * 0.7 && odd < half * 0.1 ? 'UTF-16 big-endian' : null;
}
