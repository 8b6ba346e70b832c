/**
 * Made-up probes in worlds that a calibration does not know: whatever stands between a reading and the truth is drawn here, and nothing of it is told to the code that is judged
 * but what a person at the bench would see.
 */
import type { RunPoint } from '../../core/src/calibration/runPoint.ts';
import type { Dice } from '../../standins/src/random.ts';

export type World = {
  readonly name: string;
  /** How strongly the probe bends: 0 straight, 1.25 makes the dry end 3.5 times as steep as the wet end. */
  readonly bend: readonly [number, number];
  /** What pushing it in again moves it by, and what the soil beside one that stays does: standard deviations, shares of the span. */
  readonly insertion: readonly [number, number];
  readonly staying: readonly [number, number];
  readonly noise: 'even' | 'heavy' | 'correlated';
  /** The soil is as much warmer or colder when a reference or a reading is taken, °C, even to either side; and what a degree moves, share of the span. */
  readonly swingC: number;
  readonly drift: readonly [number, number];
  readonly thermometer: boolean;
  /** How much the density differs from step to step, standard deviation, share. */
  readonly density: number;
  /** Share of the way from the condition before that is still to go when a reference is taken. */
  readonly leftBehind: readonly [number, number];
};

const USUAL: World = {
  name: 'mild',
  bend: [0, 1.25],
  insertion: [0.003, 0.01],
  staying: [0.002, 0.006],
  noise: 'even',
  swingC: 4,
  drift: [0, 0.0015],
  thermometer: false,
  density: 0.01,
  leftBehind: [-0.004, 0.004],
};

export const WORLDS: readonly World[] = [
  USUAL,
  { ...USUAL, name: 'warm and cold', swingC: 8, drift: [0, 0.003] },
  { ...USUAL, name: 'the same, with a thermometer', swingC: 8, drift: [0, 0.003], thermometer: true },
  { ...USUAL, name: 'heavy tails', noise: 'heavy' },
  { ...USUAL, name: 'correlated noise', noise: 'correlated' },
  { ...USUAL, name: 'strongly bent', bend: [0.9, 2] },
  { ...USUAL, name: 'density differs', density: 0.05 },
  {
    ...USUAL,
    name: 'pushed in twice as loose',
    insertion: [0.006, 0.02],
    staying: [0.004, 0.012],
  },
  { ...USUAL, name: 'slow to arrive', leftBehind: [0, 0.02] },
];

export type Probe = {
  readonly world: World;
  readonly dryCounts: number;
  readonly wetCounts: number;
  readonly bend: number;
  readonly noiseCounts: number;
  readonly insertionFrac: number;
  readonly stayingFrac: number;
  readonly driftFrac: number;
};

export function drawProbe(world: World, chance: Dice): Probe {
  const span = chance.between(500, 2000);
  const low = chance.between(300, 1500);
  const falls = chance.flat() < 0.85;
  return {
    world,
    dryCounts: falls ? low + span : low,
    wetCounts: falls ? low : low + span,
    bend: chance.between(...world.bend),
    noiseCounts: span * chance.across(0.001, 0.01),
    insertionFrac: chance.across(...world.insertion),
    stayingFrac: chance.across(...world.staying),
    driftFrac: chance.between(...world.drift) * (chance.flat() < 0.5 ? -1 : 1),
  };
}

const spanOf = (probe: Probe): number => Math.abs(probe.dryCounts - probe.wetCounts);

/** Raw value at a share of wetness, 0 dry … 1 wet, free of everything that disturbs. */
export function trueCounts(probe: Probe, wetness: number): number {
  const share =
    probe.bend < 1e-6 ? wetness : (1 - Math.exp(-probe.bend * wetness)) / (1 - Math.exp(-probe.bend));
  return probe.dryCounts + share * (probe.wetCounts - probe.dryCounts);
}

/** Student's t of three degrees of freedom, scaled to standard deviation one. */
const heavy = (chance: Dice) =>
  chance.bell() /
  Math.sqrt((chance.bell() ** 2 + chance.bell() ** 2 + chance.bell() ** 2) / 3) /
  Math.sqrt(3);

const READINGS = 20;

/** What stands with a capture: the probe was pushed in for it or stays, how warm the soil was, what came before. */
export type Circumstance = {
  readonly inserted: boolean;
  readonly warmerC: number;
  readonly before: number | null;
  readonly minute: number;
};

/** What a capture in a condition of this wetness gives. */
export function captureIn(
  probe: Probe,
  wetness: number,
  chance: Dice,
  of: Circumstance,
): RunPoint['captures'][number] {
  const { world } = probe;
  const span = spanOf(probe);
  const bell = () => (world.noise === 'heavy' ? heavy(chance) : chance.bell());
  const correlation = world.noise === 'correlated' ? chance.between(0.6, 0.9) : 0;
  const middle =
    (1.25 * probe.noiseCounts * Math.sqrt((1 + correlation) / (1 - correlation))) / Math.sqrt(READINGS);
  const truth = trueCounts(probe, wetness);
  const left =
    of.before === null ? 0 : chance.between(...world.leftBehind) * (trueCounts(probe, of.before) - truth);
  const off =
    (of.inserted ? probe.insertionFrac : probe.stayingFrac) * span * bell() +
    left +
    probe.driftFrac * of.warmerC * (probe.wetCounts - probe.dryCounts) +
    Math.min(middle, probe.noiseCounts) * bell();
  return {
    rawCounts: Math.round(truth + off),
    // Noise is taken from differences, which correlation makes small.
    noiseCounts: probe.noiseCounts * Math.sqrt(1 - correlation),
    readings: READINGS,
    settling: { verdict: world.leftBehind[0] < 0 ? 'steady' : 'stopped', fromEndCounts: 0 },
    takenAt: new Date(Date.UTC(2026, 3, 1) + of.minute * 60_000).toISOString(),
    supplyV: 3.3,
    boardId: 'board',
  };
}
