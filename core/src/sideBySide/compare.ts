/**
 * All probes of a kind side by side, once in air and once in the same jar: how far each is from the others, and which one is odd. Probes on boards with
 * converters of different width are compared as shares of full scale.
 */
import { medianOf } from '../signal/noise.ts';

export type SideBySideReading = { readonly counts: number; readonly noiseCounts: number };

export type SideBySideProbe = {
  readonly id: string;
  readonly fullScaleCounts: number;
  readonly air: SideBySideReading | null;
  readonly jar: SideBySideReading | null;
};

export type SideBySideRow = {
  readonly id: string;
  /** Offset from the middle of all, in this probe's own counts. */
  readonly airOffset: number | null;
  readonly jarOffset: number | null;
  /** Way from air to jar, this probe's counts, with its sign. */
  readonly span: number | null;
  /** This span beside the middle one: 1 is alike. */
  readonly spanRatio: number | null;
  /** What is odd about it, if anything. */
  readonly odd: 'air' | 'jar' | 'span' | 'direction' | null;
};

export type SideBySide = {
  readonly rows: readonly SideBySideRow[];
  /** Half the distance between the highest and the lowest, as a share of the middle span; null until two have both. */
  readonly spreadFrac: number | null;
  /** With two probes the difference is seen and nobody can say which one is wrong. */
  readonly canName: boolean;
};

/** Odd: further from the middle than this share of the middle span, and this many robust deviations of the others. */
const LEAST_FRAC = 0.06;
const LEAST_DEVIATIONS = 3.5;
const MAD_TO_SIGMA = 1.4826;

export function compareSideBySide(probes: readonly SideBySideProbe[]): SideBySide {
  const shares = (of: 'air' | 'jar') =>
    probes.flatMap((probe) => (probe[of] ? [probe[of].counts / probe.fullScaleCounts] : []));
  const both = probes.filter((probe) => probe.air && probe.jar);
  const spans = both.map((probe) => spanOf(probe) / probe.fullScaleCounts);
  const middleSpan = spans.length > 0 ? medianOf(spans) : 0;
  const scale = Math.abs(middleSpan) || 1;
  const canName = probes.filter((probe) => probe.air ?? probe.jar).length >= 3;
  const isOdd = (value: number, all: readonly number[]) => {
    if (all.length < 3) return false;
    const middle = medianOf(all);
    const sigma = MAD_TO_SIGMA * medianOf(all.map((one) => Math.abs(one - middle)));
    const off = Math.abs(value - middle);
    return off > LEAST_FRAC * scale && off > LEAST_DEVIATIONS * sigma;
  };
  const [air, jar] = [shares('air'), shares('jar')];
  const rows = probes.map((probe): SideBySideRow => {
    const full = probe.fullScaleCounts;
    const offset = (reading: SideBySideReading | null, all: readonly number[]) =>
      reading && all.length > 1 ? reading.counts - medianOf(all) * full : null;
    const span = probe.air && probe.jar ? spanOf(probe) : null;
    const odd =
      span !== null && spans.length >= 3 && Math.sign(span) !== Math.sign(middleSpan)
        ? 'direction'
        : span !== null && isOdd(span / full, spans)
          ? 'span'
          : probe.jar && isOdd(probe.jar.counts / full, jar)
            ? 'jar'
            : probe.air && isOdd(probe.air.counts / full, air)
              ? 'air'
              : null;
    return {
      id: probe.id,
      airOffset: offset(probe.air, air),
      jarOffset: offset(probe.jar, jar),
      span,
      spanRatio: span !== null && middleSpan !== 0 ? span / full / middleSpan : null,
      odd,
    };
  });
  const reach = (all: readonly number[]) => (Math.max(...all) - Math.min(...all)) / 2;
  return {
    rows,
    spreadFrac: both.length >= 2 ? Math.max(reach(air), reach(jar)) / scale : null,
    canName,
  };
}

/** One that has moved by less than this share of what the others moved by is not where they are. */
const HARDLY_FRAC = 0.2;
/** Alone, or where nobody moved: this share of full scale. */
const LEAST_MOVE_FRAC = 0.03;

/**
 * Probes that are plainly not where they should be: in the jar one must read far from what it read in air, and the other way round.
 * @param now what each says, its own counts; a probe whose other side is not known is believed
 */
export function misplaced(
  probes: readonly SideBySideProbe[],
  step: 'air' | 'jar',
  now: ReadonlyMap<string, number>,
): readonly string[] {
  const moves = probes.flatMap((probe) => {
    const other = step === 'air' ? probe.jar : probe.air;
    const counts = now.get(probe.id);
    return other && counts !== undefined
      ? [{ id: probe.id, frac: Math.abs(counts - other.counts) / probe.fullScaleCounts }]
      : [];
  });
  if (moves.length === 0) return [];
  const least = Math.max(LEAST_MOVE_FRAC, HARDLY_FRAC * medianOf(moves.map((one) => one.frac)));
  return moves.filter((one) => one.frac < least).map((one) => one.id);
}

const spanOf = (probe: SideBySideProbe): number => (probe.jar?.counts ?? 0) - (probe.air?.counts ?? 0);
