/**
 * Modbus RTU frames: what is asked of a probe and what it answers. Functions 03 (holding registers), 04 (input registers), 06 (write one), 16 (write several).
 * Source: Modbus Application Protocol V1.1b3, Modbus over Serial Line V1.02.
 */
import { fail, ok, type Result } from '../quantity/result.ts';
import { crcHolds, withCrc } from './crc16.ts';

export type Request =
  | {
      readonly function: 3 | 4;
      readonly address: number;
      readonly register: number;
      readonly count: number;
    }
  | { readonly function: 6; readonly address: number; readonly register: number; readonly value: number }
  | {
      readonly function: 16;
      readonly address: number;
      readonly register: number;
      readonly values: readonly number[];
    };

/** Most registers that one frame carries. */
export const MOST_READ = 125;
export const MOST_WRITTEN = 123;
/** Addresses that a probe may have; 0 speaks to all and nobody answers. */
export const LOWEST_ADDRESS = 1;
export const HIGHEST_ADDRESS = 247;

const high = (word: number) => (word >> 8) & 0xff;
const low = (word: number) => word & 0xff;
const word = (bytes: Uint8Array, at: number) => 256 * (bytes[at] ?? 0) + (bytes[at + 1] ?? 0);

/**
 * The bytes of a request.
 * @throws RangeError on an address, register, count or value that no frame can hold: forms check theirs before.
 */
export function buildRequest(request: Request): Uint8Array {
  const { address, register } = request;
  inside('address', address, 0, 255);
  inside('register', register, 0, 0xffff);
  const head = [address, request.function, high(register), low(register)];
  switch (request.function) {
    case 3:
    case 4:
      inside('count', request.count, 1, MOST_READ);
      return withCrc([...head, high(request.count), low(request.count)]);
    case 6:
      inside('value', request.value, 0, 0xffff);
      return withCrc([...head, high(request.value), low(request.value)]);
    case 16: {
      const { values } = request;
      inside('number of values', values.length, 1, MOST_WRITTEN);
      for (const value of values) inside('value', value, 0, 0xffff);
      const data = values.flatMap((value) => [high(value), low(value)]);
      return withCrc([...head, high(values.length), low(values.length), data.length, ...data]);
    }
  }
}

function inside(what: string, value: number, least: number, most: number): void {
  if (!Number.isInteger(value) || value < least || value > most)
    throw new RangeError(`buildRequest: ${what} is ${value}; pass a whole number from ${least} to ${most}`);
}

/** Bytes of the answer to a request when all goes well. */
export const answerLength = (request: Request): number =>
  request.function === 3 || request.function === 4 ? 5 + 2 * request.count : 8;

/** Bytes of a refusal. */
export const EXCEPTION_LENGTH = 5;

export type AnswerIssue =
  | { readonly kind: 'no-answer' }
  | { readonly kind: 'too-short'; readonly got: number; readonly wanted: number }
  | { readonly kind: 'wrong-crc' }
  /** The request itself came back: the adapter hears what it sends. */
  | { readonly kind: 'echo' }
  | { readonly kind: 'wrong-address'; readonly got: number; readonly wanted: number }
  | { readonly kind: 'wrong-function'; readonly got: number }
  | { readonly kind: 'exception'; readonly code: number }
  /** A write that the probe repeats differently from what was sent. */
  | { readonly kind: 'not-confirmed' };

/** Reads the answer to a request. The value: registers read, each 0..65535; none for a write. Cannot throw. */
export function readAnswer(request: Request, bytes: Uint8Array): Result<readonly number[], AnswerIssue> {
  if (bytes.length === 0) return fail({ kind: 'no-answer' });
  const sent = buildRequest(request);
  const isRead = request.function === 3 || request.function === 4;
  const isSame = bytes.length >= sent.length && sent.every((byte, at) => bytes[at] === byte);
  if (isRead && isSame) {
    // An adapter that hears itself puts the request in front of the answer.
    return bytes.length > sent.length
      ? readAnswer(request, bytes.subarray(sent.length))
      : fail({ kind: 'echo' });
  }
  const isException = ((bytes[1] ?? 0) & 0x80) !== 0;
  const wanted = isException ? EXCEPTION_LENGTH : answerLength(request);
  if (bytes.length < wanted) return fail({ kind: 'too-short', got: bytes.length, wanted });
  const frame = bytes.subarray(0, wanted);
  if (!crcHolds(frame)) return fail({ kind: 'wrong-crc' });
  const [address = 0, fn = 0] = frame;
  if (address !== request.address)
    return fail({ kind: 'wrong-address', got: address, wanted: request.address });
  if (fn === (request.function | 0x80)) return fail({ kind: 'exception', code: frame[2] ?? 0 });
  if (fn !== request.function) return fail({ kind: 'wrong-function', got: fn });
  if (request.function === 3 || request.function === 4) {
    if (frame[2] !== 2 * request.count)
      return fail({ kind: 'too-short', got: frame[2] ?? 0, wanted: 2 * request.count });
    return ok(Array.from({ length: request.count }, (_, at) => word(frame, 3 + 2 * at)));
  }
  // A write is answered by its own first six bytes.
  return sent.subarray(0, 6).every((byte, at) => frame[at] === byte)
    ? ok([])
    : fail({ kind: 'not-confirmed' });
}

export type RequestIssue = 'too-short' | 'wrong-crc' | 'function-not-known' | 'bad-count';

/** Reads a request as a probe receives it. Cannot throw. */
export function readRequest(bytes: Uint8Array): Result<Request, RequestIssue> {
  if (bytes.length < 8) return fail('too-short');
  if (!crcHolds(bytes)) return fail('wrong-crc');
  const address = bytes[0] ?? 0;
  const register = word(bytes, 2);
  const fifth = word(bytes, 4);
  switch (bytes[1]) {
    case 3:
    case 4:
      return fifth >= 1 && fifth <= MOST_READ
        ? ok({ function: bytes[1], address, register, count: fifth })
        : fail('bad-count');
    case 6:
      return ok({ function: 6, address, register, value: fifth });
    case 16:
      return fifth >= 1 && fifth <= MOST_WRITTEN && bytes[6] === 2 * fifth && bytes.length === 9 + 2 * fifth
        ? ok({
            function: 16,
            address,
            register,
            values: Array.from({ length: fifth }, (_, at) => word(bytes, 7 + 2 * at)),
          })
        : fail('bad-count');
    default:
      return fail('function-not-known');
  }
}

/** The answer of a probe: registers read, or the confirmation of a write. */
export function buildAnswer(request: Request, registers: readonly number[]): Uint8Array {
  if (request.function === 3 || request.function === 4)
    return withCrc([
      request.address,
      request.function,
      2 * registers.length,
      ...registers.flatMap((value) => [high(value), low(value)]),
    ]);
  return withCrc([...buildRequest(request).subarray(0, 6)]);
}

/** The refusal of a probe. @param code 1..11, see `EXCEPTIONS` */
export const buildException = (address: number, fn: number, code: number): Uint8Array =>
  withCrc([address, fn | 0x80, code]);

/** What a refusal's code means. Source: Modbus Application Protocol V1.1b3, section 7. */
export const EXCEPTIONS: Readonly<Record<number, string>> = {
  1: 'the probe does not know this function',
  2: 'the probe has no such register',
  3: 'the value or the number of registers is not allowed',
  4: 'the probe failed while it tried',
  5: 'the probe has accepted and needs longer',
  6: 'the probe is busy',
  8: 'the probe’s memory failed its check',
};
