/** A cheap analog probe: a curved answer to wetness, a fast and a slow part after every change, noise, a daily temperature wave. */
import { normal, type Seed } from '../random.ts';

export type ProbeTraits = {
  readonly airCounts: number;
  readonly waterCounts: number;
  /** Standard deviation of one reading, counts. */
  readonly noiseCounts: number;
  /** How long the slow part takes after a change, s. */
  readonly slowS: number;
  readonly fullScaleCounts: number;
};

export type ProbePlace = 'soil' | 'air' | 'jar' | 'hand';

/** What can be wrong with a probe or its plug. */
export const PROBE_FAULTS = ['none', 'open', 'short', 'stuck', 'wet connector', 'interference'] as const;
export type ProbeFault = (typeof PROBE_FAULTS)[number];

export type ProbeState = {
  readonly place: ProbePlace;
  /** `open`: the plug is out above the soil and the input floats to full scale; pushing the probe in again seats it again. */
  readonly fault: ProbeFault;
  /** Wetness that the fast and the slow part have reached, 0..1. */
  readonly fast: number;
  readonly slow: number;
};

const FAST_S = 1.5;
/** Share of the answer that comes at once. */
const FAST_SHARE = 0.8;
/** What fingers do to it. */
const HAND_WETNESS = 0.35;
/** A wet plug adds a leak, as a share of the span; a pump's wiring adds a ripple of this height and period. */
const LEAK_SHARE = 0.3;
const RIPPLE_SHARE = 0.035;
const RIPPLE_S = 3.7;
/** Swing of the reading over a day per unit of span: cheap probes drift with temperature. */
const DAILY_SWING = 0.006;

export const settledProbe = (wetness: number): ProbeState => ({
  place: 'soil',
  fault: 'none',
  fast: wetness,
  slow: wetness,
});

export function stepProbe(
  probe: ProbeState,
  traits: ProbeTraits,
  soilWetness: number,
  durationS: number,
): ProbeState {
  if (probe.fault === 'stuck') return probe;
  const target = { soil: soilWetness, jar: 1, air: 0, hand: HAND_WETNESS }[probe.place];
  const slowS = probe.place === 'soil' ? traits.slowS : traits.slowS / 3;
  const toward = (from: number, timeS: number) => target + (from - target) * Math.exp(-durationS / timeS);
  return { ...probe, fast: toward(probe.fast, FAST_S), slow: toward(probe.slow, slowS) };
}

export const moveProbe = (probe: ProbeState, place: ProbePlace): ProbeState => ({
  ...probe,
  place,
  fault: probe.fault === 'open' ? 'none' : probe.fault,
});

export const withFault = (probe: ProbeState, fault: ProbeFault): ProbeState => ({ ...probe, fault });

/** One reading in whole counts, and the next seed. Soil at saturation answers less than plain water, as soil does. */
export function readProbe(
  probe: ProbeState,
  traits: ProbeTraits,
  timeMs: number,
  seed: Seed,
): { counts: number; seed: Seed } {
  if (probe.fault === 'open') return { counts: traits.fullScaleCounts, seed };
  if (probe.fault === 'short') return { counts: 0, seed };
  const wetness = FAST_SHARE * probe.fast + (1 - FAST_SHARE) * probe.slow;
  const seen = probe.place === 'soil' ? 0.08 + 0.78 * wetness : wetness;
  const curved = seen * (1.15 - 0.15 * seen);
  const span = traits.waterCounts - traits.airCounts;
  const hour = (timeMs / 3_600_000) % 24;
  const wave = probe.place === 'soil' ? DAILY_SWING * span * Math.sin((Math.PI * (hour - 9)) / 12) : 0;
  const noise = normal(seed);
  const stuck = probe.fault === 'stuck';
  const extra =
    probe.fault === 'wet connector'
      ? LEAK_SHARE * span
      : probe.fault === 'interference'
        ? RIPPLE_SHARE * span * Math.sin((2 * Math.PI * timeMs) / (RIPPLE_S * 1000))
        : 0;
  const counts = Math.round(
    traits.airCounts + span * curved + (stuck ? 0 : wave + extra + traits.noiseCounts * noise.value),
  );
  return { counts: Math.min(traits.fullScaleCounts, Math.max(0, counts)), seed: noise.seed };
}
