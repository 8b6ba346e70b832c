/** What is wrong with the lines themselves: garbage, silence. */
import { likelySpeed } from './wrongSpeed.ts';

export type LineFault =
  | { readonly kind: 'garbage'; readonly shareFrac: number; readonly likelyBaud: number | null }
  | { readonly kind: 'silence'; readonly forS: number; readonly before: 'never' | 'lines' | 'bytes' };

export type LinesSeen = {
  /** Lines of the last moments, and how many of them were no text. */
  readonly recent: number;
  readonly garbage: number;
  /** Seconds since the last line, or since the link was opened; whether any line came before; whether bytes came without a line end. */
  readonly quietS: number;
  readonly everALine: boolean;
  readonly bytesSinceLine: number;
  /** Usual distance of lines before, s; null while not known. */
  readonly everyS: number | null;
  /** The newest bytes as they came, and the speed they were read at; null for a source without a speed. */
  readonly raw: { readonly bytes: ArrayLike<number>; readonly baudRate: number } | null;
};

const GARBAGE_FRAC = 0.3;
const QUIET_S = 5;

/** The fault of the lines, or null. */
export function lineFault(seen: LinesSeen): LineFault | null {
  const isGarbage = seen.recent >= 3 && seen.garbage / seen.recent >= GARBAGE_FRAC;
  const guess = () => (seen.raw ? likelySpeed(seen.raw.bytes, seen.raw.baudRate) : null);
  if (isGarbage) return { kind: 'garbage', shareFrac: seen.garbage / seen.recent, likelyBaud: guess() };
  const allowedS = Math.max(QUIET_S, 5 * (seen.everyS ?? 0));
  if (seen.quietS <= allowedS) return null;
  // Bytes without a line end are most often a wrong speed too.
  const likelyBaud = seen.bytesSinceLine > 0 ? guess() : null;
  if (likelyBaud !== null) return { kind: 'garbage', shareFrac: 1, likelyBaud };
  return {
    kind: 'silence',
    forS: seen.quietS,
    before: seen.everALine ? 'lines' : seen.bytesSinceLine > 0 ? 'bytes' : 'never',
  };
}
