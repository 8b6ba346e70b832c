/**
 * A steel-rod probe on a bus that does not exist: takes the bytes of a request, gives the bytes of its answer. Pure, so that the same probe lives in
 * the page, behind a TCP port and on a serial device. Its faults come when asked for.
 */
import { crcHolds } from '@plain-trowel/core/bus/crc16';
import { buildAnswer, buildException, readRequest, type Request } from '@plain-trowel/core/bus/frame';
import { encode, type BusQuantity, type RegisterMap } from '@plain-trowel/core/bus/registers';
import { normal, uniform, type Seed } from '../random.ts';

export const BUS_FAULTS = ['none', 'no answer', 'wrong CRC', 'wrong address', 'exception', 'slow'] as const;
export type BusFault = (typeof BUS_FAULTS)[number];

export type SoilAround = Readonly<Record<BusQuantity, number>>;

export type BusProbe = {
  readonly address: number;
  readonly map: RegisterMap;
  readonly soil: SoilAround;
  readonly fault: BusFault;
  /** Share of the answers that the fault spoils, 0..1. */
  readonly faultFrac: number;
  readonly seed: Seed;
};

/** A moist bed in spring. */
export const USUAL_SOIL: SoilAround = {
  moisture: 31.4,
  temperature: 18.2,
  conductivity: 412,
  pH: 6.6,
  nitrogen: 31,
  phosphorus: 12,
  potassium: 94,
  other: 0,
};

export const newBusProbe = (address: number, map: RegisterMap, seed: Seed): BusProbe => ({
  address,
  map,
  soil: USUAL_SOIL,
  fault: 'none',
  faultFrac: 1,
  seed,
});

/** Noise of a reading as a share of its value, as a cheap probe has it. */
const NOISE_FRAC = 0.004;
const USUAL_DELAY_MS = 25;
const SLOW_DELAY_MS = 2500;

export type Answered = {
  readonly probe: BusProbe;
  /** Null: nothing is sent. */
  readonly bytes: Uint8Array | null;
  readonly delayMs: number;
};

/** What a probe answers to a frame on its bus. A frame for another address, or one whose check value fails, is not answered. */
export function answerFrame(probe: BusProbe, frame: Uint8Array): Answered {
  const silent = { probe, bytes: null, delayMs: 0 };
  const address = frame[0] ?? 0;
  const read = readRequest(frame);
  if (!read.ok && read.issue !== 'function-not-known' && read.issue !== 'bad-count') return silent;
  // Address 0 speaks to all: they do as told and keep quiet.
  if (address !== probe.address && address !== 0) return silent;
  const { probe: after, bytes } = read.ok
    ? obey(probe, read.value)
    : {
        probe,
        bytes: buildException(address, frame[1] ?? 0, read.issue === 'bad-count' ? 3 : 1),
      };
  if (address === 0) return { probe: after, bytes: null, delayMs: 0 };
  return spoil(after, bytes, read.ok ? read.value.function : (frame[1] ?? 0));
}

function obey(probe: BusProbe, request: Request): { probe: BusProbe; bytes: Uint8Array } {
  const refuse = (code: number) => ({
    probe,
    bytes: buildException(request.address, request.function, code),
  });
  const own = probe.map.address;
  if (request.function === 6 || request.function === 16) {
    const value = request.function === 6 ? request.value : request.values[0];
    if (!own || request.register !== own.register) return refuse(2);
    if (value === undefined || value < 1 || value > 247) return refuse(3);
    return { probe: { ...probe, address: value }, bytes: buildAnswer(request, []) };
  }
  if (own && request.count === 1 && request.register === own.register)
    return { probe, bytes: buildAnswer(request, [probe.address]) };
  if (request.function !== probe.map.readFunction) return refuse(1);
  const { registers, seed } = sense(probe);
  const words = Array.from({ length: request.count }, (_, at) => registers.get(request.register + at));
  if (words.every((word) => word === undefined)) return refuse(2);
  return {
    probe: { ...probe, seed },
    bytes: buildAnswer(
      request,
      words.map((word) => word ?? 0),
    ),
  };
}

/** The registers as they stand now, each with a little noise. */
function sense(probe: BusProbe): { registers: Map<number, number>; seed: Seed } {
  let { seed } = probe;
  const registers = new Map<number, number>();
  for (const field of probe.map.fields) {
    const noise = normal(seed);
    ({ seed } = noise);
    const value = probe.soil[field.quantity] * (1 + NOISE_FRAC * noise.value);
    const words = encode(field.type, field.wordOrder, (value - field.offset) / field.scale);
    for (const [at, word] of words.entries()) registers.set(field.register + at, word);
  }
  return { registers, seed };
}

function spoil(probe: BusProbe, bytes: Uint8Array, fn: number): Answered {
  const usual = { probe, bytes, delayMs: USUAL_DELAY_MS };
  if (probe.fault === 'none') return usual;
  const drawn = uniform(probe.seed);
  const after = { ...probe, seed: drawn.seed };
  if (drawn.value >= probe.faultFrac) return { ...usual, probe: after };
  switch (probe.fault) {
    case 'no answer':
      return { probe: after, bytes: null, delayMs: 0 };
    case 'wrong CRC':
      return {
        ...usual,
        probe: after,
        bytes: bytes.map((byte, at) => (at === bytes.length - 1 ? byte ^ 0xff : byte)),
      };
    case 'wrong address': {
      const other = buildException((probe.address % 247) + 1, fn, 4);
      return { ...usual, probe: after, bytes: other };
    }
    case 'exception':
      return { ...usual, probe: after, bytes: buildException(probe.address, fn, 4) };
    case 'slow':
      return { ...usual, probe: after, delayMs: SLOW_DELAY_MS };
  }
}

/** Finds whole requests in bytes that arrive in pieces of any size; what is no frame is passed over. */
export class FrameCollector {
  private held: number[] = [];

  push(bytes: Iterable<number>): Uint8Array[] {
    this.held.push(...bytes);
    const frames: Uint8Array[] = [];
    while (this.held.length >= 8) {
      const length = this.held[1] === 16 ? 9 + (this.held[6] ?? 0) : 8;
      if (this.held.length < length) break;
      const frame = Uint8Array.from(this.held.slice(0, length));
      if (crcHolds(frame)) {
        frames.push(frame);
        this.held.splice(0, length);
      } else this.held.shift();
    }
    if (this.held.length > 512) this.held = this.held.slice(-16);
    return frames;
  }

  /** A pause ends whatever was half said. */
  pause(): void {
    this.held = [];
  }
}
