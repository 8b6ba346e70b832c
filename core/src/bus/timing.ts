/** When a frame ends and how long to wait for one. Source: Modbus over Serial Line V1.02, 2.5.1. */

/** Speeds that probes are set to, bits a second. */
export const BUS_SPEEDS = [1200, 2400, 4800, 9600, 19_200, 38_400, 57_600, 115_200] as const;
export type BusSpeed = (typeof BUS_SPEEDS)[number];
/** What most of them are set to when they are bought. */
export const USUAL_SPEED: BusSpeed = 9600;

/** Bits of one character on the line: start, eight, parity or a second stop, stop. */
const BITS = 11;
/** Above this speed the pauses are fixed, so that a machine's clock can keep them. */
const FIXED_ABOVE = 19_200;
const FIXED_GAP_MS = 1.75;

/** Time of one character, ms. @param baudRate > 0 */
export const characterMs = (baudRate: number): number => (BITS * 1000) / baudRate;

/** Silence that ends a frame: 3.5 characters, 1.75 ms above 19 200 baud. */
export const frameGapMs = (baudRate: number): number =>
  baudRate > FIXED_ABOVE ? FIXED_GAP_MS : 3.5 * characterMs(baudRate);

/** How long a probe may think before its first byte, ms: cheap ones take up to a fifth of a second. */
export const THINKING_MS = 300;

/** How long to wait for a whole answer of so many bytes after the request of so many has been sent, ms. */
export const answerWithinMs = (baudRate: number, sentBytes: number, wantedBytes: number): number =>
  (sentBytes + wantedBytes) * characterMs(baudRate) + 2 * frameGapMs(baudRate) + THINKING_MS;
