/** Every byte of a frame with what it says, for the hex view. */
import { EXCEPTIONS, readRequest } from './frame.ts';
import { crcHolds } from './crc16.ts';

export type ExplainedBytes = { readonly bytes: readonly number[]; readonly means: string };

export const hex = (byte: number): string => byte.toString(16).toUpperCase().padStart(2, '0');

const FUNCTIONS: Readonly<Record<number, string>> = {
  3: 'read holding registers',
  4: 'read input registers',
  6: 'write one register',
  16: 'write several registers',
};

const word = (frame: Uint8Array, at: number) => 256 * (frame[at] ?? 0) + (frame[at + 1] ?? 0);
const part = (frame: Uint8Array, from: number, length: number, means: string): ExplainedBytes => ({
  bytes: [...frame.subarray(from, from + length)],
  means,
});
const functionText = (fn: number) => `function ${fn}: ${FUNCTIONS[fn] ?? 'not one that is used here'}`;

function crcPart(frame: Uint8Array, from: number): ExplainedBytes[] {
  if (frame.length <= from) return [];
  const means = crcHolds(frame) ? 'check value, low byte first: holds' : 'check value: does not hold';
  return [part(frame, from, frame.length - from, means)];
}

/** A request's bytes, in order, each once. */
export function explainRequest(frame: Uint8Array): ExplainedBytes[] {
  const fn = frame[1] ?? 0;
  const read = readRequest(frame);
  const head = [
    part(frame, 0, 1, `to address ${frame[0] ?? 0}`),
    part(frame, 1, 1, functionText(fn)),
    part(frame, 2, 2, `from register ${word(frame, 2)}`),
  ];
  if (fn === 6) return [...head, part(frame, 4, 2, `the value ${word(frame, 4)}`), ...crcPart(frame, 6)];
  if (fn === 16 && read.ok)
    return [
      ...head,
      part(frame, 4, 2, `${word(frame, 4)} registers`),
      part(frame, 6, 1, `${frame[6] ?? 0} bytes follow`),
      ...valueParts(frame, 7, word(frame, 4), word(frame, 2)),
      ...crcPart(frame, 7 + (frame[6] ?? 0)),
    ];
  return [...head, part(frame, 4, 2, `${word(frame, 4)} registers`), ...crcPart(frame, 6)];
}

const valueParts = (frame: Uint8Array, from: number, count: number, register: number): ExplainedBytes[] =>
  Array.from({ length: count }, (_, at) =>
    part(frame, from + 2 * at, 2, `register ${register + at}: ${word(frame, from + 2 * at)}`),
  );

/**
 * An answer's bytes, in order, each once; what cannot be made out is said to be so.
 * @param register first register that was asked for
 */
export function explainAnswer(frame: Uint8Array, register: number): ExplainedBytes[] {
  if (frame.length === 0) return [];
  if (frame.length < 5) return [part(frame, 0, frame.length, 'too short for an answer')];
  const fn = frame[1] ?? 0;
  const from = part(frame, 0, 1, `from address ${frame[0] ?? 0}`);
  if (fn & 0x80) {
    const code = frame[2] ?? 0;
    return [
      from,
      part(frame, 1, 1, `refusal of function ${fn & 0x7f}`),
      part(frame, 2, 1, `reason ${code}: ${EXCEPTIONS[code] ?? 'not in the standard'}`),
      ...crcPart(frame, 3),
    ];
  }
  if (fn === 3 || fn === 4) {
    const length = frame[2] ?? 0;
    const held = Math.floor(Math.min(length, Math.max(0, frame.length - 5)) / 2);
    return [
      from,
      part(frame, 1, 1, functionText(fn)),
      part(frame, 2, 1, `${length} bytes follow`),
      ...valueParts(frame, 3, held, register),
      ...crcPart(frame, 3 + 2 * held),
    ];
  }
  if ((fn === 6 || fn === 16) && frame.length >= 8)
    return [
      from,
      part(frame, 1, 1, functionText(fn)),
      part(frame, 2, 2, `register ${word(frame, 2)}`),
      part(frame, 4, 2, fn === 6 ? `the value ${word(frame, 4)}` : `${word(frame, 4)} registers written`),
      ...crcPart(frame, 6),
    ];
  return [from, part(frame, 1, frame.length - 1, 'not an answer that is known here')];
}
