/** What the channels of a stand-in board print: moisture from its probe, temperatures of a made-up day, a battery, a tank. */
import { byId } from '@plain-trowel/core/quantity/byId';
import type { Channel, Garden } from '@plain-trowel/core/garden/document/schema';
import { isDeciding, readsCounts, type Deciding } from '@plain-trowel/core/garden/bind/scale';
import { fullScaleOf } from '@plain-trowel/core/garden/bind/channels';
import type { Quantity } from '@plain-trowel/core/quantity/quantities';
import type { Correction } from '@plain-trowel/core/temperature/correction';
import { temperatureOfOhm } from '@plain-trowel/core/temperature/thermistor';
import { normal, seedOf, uniform, type Seed } from '../random.ts';
import { sunAt } from './pot.ts';
import { readProbe, type ProbeState, type ProbeTraits } from './potProbe.ts';

export type ChannelSetup = {
  readonly channelId: string;
  readonly probeId: string | null;
  readonly plotId: string | null;
  readonly boardId: string;
  readonly streamName: string;
  readonly quantity: Quantity;
  readonly correction: Correction;
  readonly depthCm: number;
  readonly probe: ProbeTraits;
  /** What this thermometer is off by, °C: every one is, a little. */
  readonly offC: number;
};

/** Null for a channel that no board prints: a bus probe's, or one without a name. */
export function channelSetup(garden: Garden, channel: Channel): ChannelSetup | null {
  const board = byId(garden.boards, channel.boardId);
  const probe = byId(garden.probes, channel.probeId) ?? null;
  if (!board || channel.streamName === '' || probe?.bus) return null;
  const isFork = probe?.kind === 'resistive fork' || probe?.kind === 'home-made electrodes';
  return {
    channelId: channel.id,
    probeId: probe?.id ?? null,
    plotId: probe?.plotId ?? null,
    boardId: board.id,
    streamName: channel.streamName,
    quantity: channel.quantity,
    correction: channel.correction,
    depthCm: probe?.depthCm ?? 0,
    probe: probeTraits(probe?.id ?? channel.id, isFork, fullScaleOf(garden, channel)),
    offC: 1.2 * (uniform(seedOf(channel.id)).value - 0.5),
  };
}

function probeTraits(probeId: string, isFork: boolean, full: number): ProbeTraits {
  const spread = uniform(seedOf(probeId)).value - 0.5;
  return {
    airCounts: Math.round(full * (isFork ? 0.965 + 0.02 * spread : 0.73 + 0.05 * spread)),
    waterCounts: Math.round(full * (isFork ? 0.3 + 0.06 * spread : 0.29 + 0.04 * spread)),
    noiseCounts: full * (isFork ? 0.0022 : 0.0014),
    slowS: isFork ? 300 : 45,
    fullScaleCounts: full,
  };
}

/** Mean of the day and half its swing, °C; soil follows damped and late, by a damping depth of 12 cm. */
const MEAN_C = 14;
const SWING_C = 6;
const DAMPING_CM = 12;
const WARM_UP_S = 0.7;

/** Air in the shade, warmest at three in the afternoon (UTC; a stand-in does not mind an hour). */
const airC = (timeMs: number): number =>
  MEAN_C + SWING_C * Math.sin((2 * Math.PI * (timeMs / 3_600_000 - 9)) / 24);

/** Soil at a depth: the daily wave damped by e^(−z/d) and late by z/d radians. Source: Hillel, Environmental Soil Physics. */
export function soilC(timeMs: number, depthCm: number): number {
  const damping = depthCm / DAMPING_CM;
  const angle = (2 * Math.PI * (timeMs / 3_600_000 - 9)) / 24 - damping;
  return MEAN_C + SWING_C * Math.exp(-damping) * Math.sin(angle);
}

/** One printed value and the next seed. @param now.poweredS seconds since the probe's supply went on; null while it is off */
export function measureChannel(
  of: ChannelSetup,
  now: {
    readonly probe: ProbeState | null;
    readonly timeMs: number;
    readonly poweredS: number | null;
    readonly seed: Seed;
    /** What the reservoir that it watches reads; null for a channel that watches none. */
    readonly level: number | null;
    /** A person has turned it on, where it is a switch. */
    readonly isSwitched?: boolean;
    /** A grow light of its board is lit, which a light cell sees. */
    readonly isLit?: boolean;
  },
): { value: number; seed: Seed } {
  const { timeMs, seed, poweredS } = now;
  if (isDeciding(of.quantity) && now.probe) {
    const { counts, seed: next } = readProbe(now.probe, of.probe, timeMs, seed);
    if (of.quantity !== 'moisture')
      return { value: printedOf(of, ownNumber(of.quantity, of.probe, counts)), seed: next };
    // Without its supply an input reads next to nothing; with it the oscillator takes its time.
    const warm = poweredS === null ? 0 : 1 - Math.exp(-poweredS / WARM_UP_S);
    return { value: warm === 1 ? counts : Math.round(4 + (counts - 4) * warm), seed: next };
  }
  const noise = normal(seed);
  const at = (value: number, sigma: number, decimals: number) => ({
    value: Number((value + sigma * noise.value).toFixed(decimals)),
    seed: noise.seed,
  });
  if (now.level !== null) return now.level <= 1 ? { value: now.level, seed } : at(now.level, 0.8, 0);
  switch (of.quantity) {
    case 'soil temperature':
    case 'air temperature': {
      const trueC = of.quantity === 'soil temperature' ? soilC(timeMs, of.depthCm) : airC(timeMs);
      const printed = thermometer(of, trueC + of.offC);
      return of.correction.kind === 'thermistor' ? at(printed, 1.5, 0) : at(printed, 0.05, 2);
    }
    case 'battery voltage':
      // A divider of four with one part in fifty of tolerance: 12.4 V at night, 13.6 V in the sun.
      return at((12.4 + 0.4 * sunAt(timeMs)) / 4 / 1.02, 0.004, 3);
    case 'distance':
      return at(212, 1.2, 0);
    case 'level':
      return at(0.46 * of.probe.fullScaleCounts, 3, 0);
    case 'weight':
      // A pot on a scale: two kilograms, drying a little through the day.
      return at(2000 - 40 * sunAt(timeMs), 0.8, 0);
    case 'light':
      // A quarter of full scale for each unit of sun; the night is not quite dark.
      return at(
        Math.min(0.97, 0.01 + 0.3 * sunAt(timeMs) + (now.isLit === true ? 0.12 : 0)) *
          of.probe.fullScaleCounts,
        4,
        0,
      );
    case 'soil humidity':
      // In the pores of any soil that is not bone dry the air is all but saturated: at depth it tells nothing.
      return at(99.4, 0.1, 1);
    case 'rain':
      return { value: 0, seed };
    case 'skip switch':
      return { value: now.isSwitched === true ? 1 : 0, seed };
    case 'probe supply':
      return { value: poweredS === null ? 0 : 1, seed };
    default:
      return at(0.5, 0.01, 2);
  }
}

/** What its board prints for it: the number itself, or the counts of a converter. */
const printedOf = ({ quantity, correction }: ChannelSetup, own: number): number =>
  readsCounts({ quantity, correction }) && correction.kind === 'line'
    ? Math.round((own - correction.offset) / correction.gain)
    : own;

/** What a probe that reckons by itself prints: its own percent, a tension, dry (1) or wet (0). */
function ownNumber(
  quantity: Exclude<Deciding, 'moisture'>,
  { airCounts, waterCounts }: ProbeTraits,
  counts: number,
): number {
  const wetFrac = Math.min(1, Math.max(0, (airCounts - counts) / (airCounts - waterCounts)));
  switch (quantity) {
    case 'factory moisture':
      return Number((100 * wetFrac).toFixed(1));
    case 'soil tension':
      // Steep where it is dry, as every retention curve.
      return Number((90 * (1 - wetFrac) ** 2).toFixed(1));
    case 'moisture switch':
      return wetFrac < 0.5 ? 1 : 0;
  }
}

/** What a thermometer prints at a temperature: degrees, or the counts of its divider. */
function thermometer(of: ChannelSetup, temperatureC: number): number {
  const { correction } = of;
  if (correction.kind !== 'thermistor') return temperatureC;
  // The curve turned round by halving: resistance falls with temperature.
  let low = 1;
  let high = 1e7;
  for (let turn = 0; turn < 60; turn += 1) {
    const middle = Math.sqrt(low * high);
    if (temperatureOfOhm(correction, middle) > temperatureC) low = middle;
    else high = middle;
  }
  const share =
    correction.side === 'ground'
      ? low / (low + correction.fixedOhm)
      : correction.fixedOhm / (low + correction.fixedOhm);
  return share * of.probe.fullScaleCounts;
}
