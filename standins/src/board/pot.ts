/**
 * A first simple pot: one store of fresh water on top that soaks in, one root zone that dries and drains.
 * Enough to make a probe leap after a pour, creep while the water spreads, and fall over the day; a real soil column comes later.
 */
export type PotTraits = {
  /** Water held at saturation, ml. */
  readonly saturationMl: number;
  /** Water left a day after soaking, ml. */
  readonly capacityMl: number;
  /** Water no root can take, ml. */
  readonly driestMl: number;
  /** Water lost on a bright day by a pot at capacity, ml per day. */
  readonly dryingMlPerDay: number;
};

export type PotState = {
  /** Poured and not yet soaked in, ml. */
  readonly surfaceMl: number;
  /** In the root zone, ml. */
  readonly rootMl: number;
  /** Run out of the bottom since the start, ml. */
  readonly drainedMl: number;
};

const SOAK_S = 75;
const DRAIN_S = 1500;
const DAY_S = 86_400;
/** Share of fresh surface water that the probe already sees: water finds the probe's slot before it spreads. */
const SEEN_AT_ONCE = 0.55;

/** Sun over a day: 0 at night, a half sine from 6 to 18 h with a daily mean of 1. Time is UTC; a pot does not mind an hour. */
export function sunAt(timeMs: number): number {
  const hour = (timeMs / 3_600_000) % 24;
  return hour > 6 && hour < 18 ? Math.PI * Math.sin((Math.PI * (hour - 6)) / 12) : 0;
}

/** The pot after `durationS` seconds (up to a few minutes a step) from `timeMs` on. Water is neither made nor lost: in = held + drained + dried. */
export function stepPot(pot: PotState, traits: PotTraits, timeMs: number, durationS: number): PotState {
  const soaked = pot.surfaceMl * (1 - Math.exp(-durationS / SOAK_S));
  const before = pot.rootMl + soaked;
  const excess = Math.max(0, before - traits.capacityMl);
  const drained = excess * (1 - Math.exp(-durationS / DRAIN_S));
  const supply = (before - traits.driestMl) / (traits.capacityMl - traits.driestMl);
  const dried =
    ((traits.dryingMlPerDay * sunAt(timeMs)) / DAY_S) * durationS * Math.min(1, Math.max(0, supply));
  const overflow = Math.max(0, before - drained - dried - traits.saturationMl);
  return {
    surfaceMl: pot.surfaceMl - soaked,
    rootMl: before - drained - dried - overflow,
    drainedMl: pot.drainedMl + drained + overflow,
  };
}

export const pour = (pot: PotState, volumeMl: number): PotState => ({
  ...pot,
  surfaceMl: pot.surfaceMl + volumeMl,
});

/** Wetness at the probe, 0 (bone dry) to 1 (saturated). */
export const wetnessAtProbe = (pot: PotState, traits: PotTraits): number =>
  Math.min(1, (pot.rootMl + SEEN_AT_ONCE * pot.surfaceMl) / traits.saturationMl);
