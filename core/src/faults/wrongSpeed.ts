/**
 * Which speed a board really sends at, from the garbage that another speed makes of its lines. What a receiver would see is worked out: the bits of
 * ordinary lines at every usual speed, sampled at the speed that is set, start bit by start bit. The speed whose bytes look most like those that came
 * is the likely one.
 */
export const USUAL_SPEEDS = [
  1200, 2400, 4800, 9600, 19_200, 38_400, 57_600, 74_880, 115_200, 230_400, 460_800, 921_600,
] as const;

/** Lines that a board could have sent: names, changing numbers, separators, line ends. Long, because a fast sender is seen only in snatches. */
const ORDINARY = Array.from({ length: 240 }, (_, at) => {
  const raw = (at * 7919 + 1512) % 4096;
  const warm = (((at * 31) % 400) / 10).toFixed(1);
  return [
    `A0=${raw}\r\n`,
    `moisture: ${raw % 1024}\r\n`,
    `${raw},${(raw * 3) % 1024},${at % 100}\r\n`,
    `{"c2":${raw},"t":${warm}}\r\n`,
    `soil ${raw % 1000} temp ${warm}\r\n`,
    `${raw};${(raw * 7) % 4096}\r\n`,
  ][at % 6];
}).join('');
const LEAST_BYTES = 24;
/** How much better than the next the best speed must explain the bytes: e^1.5 to one. */
const LEAST_LEAD = 1.5;
/** Far the most boards are set to one of these; of the rest each is believed e⁻² as readily, which decides where the bytes cannot. */
const COMMON: readonly number[] = [9600, 115_200];
const UNCOMMON = -2;
/** Added to every byte's expected share, so that one never foreseen does not rule a speed out. */
const SMOOTH = 0.002;

/** Levels of the line, one per bit at the sender's speed: 1 rest, start 0, eight bits low first, stop 1. */
function bitsOf(text: string): number[] {
  const bits = [1, 1];
  for (const letter of text) {
    const code = letter.charCodeAt(0);
    bits.push(0);
    for (let bit = 0; bit < 8; bit += 1) bits.push((code >> bit) & 1);
    bits.push(1);
  }
  return [...bits, 1, 1, 1, 1];
}

/** Bytes that a receiver at `atBaud` makes of text sent at `sentBaud`: a falling edge starts a byte, its bits are read at their middles. */
export function receivedAt(text: string, sentBaud: number, atBaud: number): number[] {
  const bits = bitsOf(text);
  const level = (seconds: number) => bits[Math.floor(seconds * sentBaud)] ?? 1;
  const endS = bits.length / sentBaud;
  const sampleS = 1 / (16 * Math.max(atBaud, sentBaud));
  const bytes: number[] = [];
  let atS = 0;
  while (atS < endS) {
    if (level(atS) === 1) {
      atS += sampleS;
      continue;
    }
    let byte = 0;
    for (let bit = 0; bit < 8; bit += 1) byte |= level(atS + (1.5 + bit) / atBaud) << bit;
    bytes.push(byte);
    atS += 9.5 / atBaud;
    // The next start is a fall from rest; a line that is still low is waited out.
    while (atS < endS && level(atS) === 0) atS += sampleS;
  }
  return bytes;
}

/**
 * The speed most likely in use; null when too little has come, or no speed explains the bytes clearly better than the others.
 * @param bytes as received at `atBaud`; the newest few hundred are plenty
 */
export function likelySpeed(bytes: ArrayLike<number>, atBaud: number): number | null {
  if (bytes.length < LEAST_BYTES) return null;
  const counts = new Float64Array(256);
  for (let at = 0; at < bytes.length; at += 1) {
    const byte = (bytes[at] ?? 0) & 0xff;
    counts[byte] = (counts[byte] ?? 0) + 1;
  }
  const scored = foreseenAt(atBaud)
    .map(({ sentBaud, logShares }) => ({
      sentBaud,
      fit:
        counts.reduce((sum, count, byte) => sum + count * (logShares[byte] ?? 0), 0) +
        (COMMON.includes(sentBaud) ? 0 : UNCOMMON),
    }))
    .sort((a, b) => b.fit - a.fit);
  const [first, second] = scored;
  if (!first || !second || first.sentBaud === atBaud) return null;
  return first.fit - second.fit > LEAST_LEAD ? first.sentBaud : null;
}

/** Worked out once for every speed a port is set to: garbage is looked at again and again. */
const FORESEEN = new Map<number, readonly { sentBaud: number; logShares: Float64Array }[]>();

function foreseenAt(atBaud: number): readonly { sentBaud: number; logShares: Float64Array }[] {
  const known = FORESEEN.get(atBaud);
  if (known) return known;
  const made = USUAL_SPEEDS.map((sentBaud) => ({
    sentBaud,
    logShares: logSharesOf(receivedAt(ORDINARY, sentBaud, atBaud)),
  }));
  FORESEEN.set(atBaud, made);
  return made;
}

function logSharesOf(foreseen: readonly number[]): Float64Array {
  const shares = new Float64Array(256).fill(SMOOTH);
  for (const byte of foreseen) shares[byte] = (shares[byte] ?? 0) + 1 / Math.max(1, foreseen.length);
  const total = shares.reduce((sum, share) => sum + share, 0);
  return shares.map((share) => Math.log(share / total));
}
