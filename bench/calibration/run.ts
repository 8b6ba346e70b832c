/**
 * Calibrates made-up probes by every school in every world, and counts how often the truth lies within the ± that is stated. Beside it what one who knew the world would state: the
 * width that holds 95 of 100 errors of that school there.
 */
import { noiseOfRun, outcomeOf, worthOf } from '../../core/src/calibration/run.ts';
import { readCurve } from '../../core/src/calibration/curve.ts';
import { uncertaintyOf } from '../../core/src/calibration/uncertainty.ts';
import { dice } from '../../standins/src/random.ts';
import { SCHOOLS, warmthIn } from './schools.ts';
import { captureIn, drawProbe, WORLDS, type World } from './worlds.ts';

const CONTEXT = { probeKind: null, fullScaleCounts: null, nowMs: Date.UTC(2026, 3, 1) };

export type CalibrationRow = {
  readonly school: string;
  readonly world: string;
  /** Shares of the probes: truth within ±, no calibration (refused). */
  readonly within: number;
  readonly refused: number;
  /** Median ±, and the width that holds 95 of 100 errors, percent. */
  readonly medianStated: number;
  readonly known: number;
};

const quantile = (values: readonly number[], at: number) =>
  [...values].sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(at * values.length))] ??
  Number.NaN;

function rowOf(school: string, world: World, trials: number): CalibrationRow {
  const make = SCHOOLS[school];
  const stated: number[] = [];
  const errors: number[] = [];
  let refused = 0;
  for (let seed = 0; seed < trials; seed += 1) {
    const chance = dice(104_729 * (seed + 1));
    const drawn = drawProbe(world, chance);
    // A probe that comes with a curve of its own is nearly straight along it.
    const probe = school.startsWith('factory') ? { ...drawn, bend: 0 } : drawn;
    const trial = make?.(probe, chance);
    if (!trial) continue;
    const outcome = outcomeOf(trial.run, CONTEXT);
    const worth = worthOf(outcome, outcome.chosen, noiseOfRun(trial.run));
    const { calibrated } = worth;
    if (!calibrated || worth.refused) {
      refused += 1;
      continue;
    }
    const wetness = chance.between(trial.from, trial.to);
    const warmerC = warmthIn(probe, chance);
    const reading = captureIn(probe, wetness, chance, {
      inserted: trial.stays !== true,
      warmerC,
      before: null,
      minute: 0,
    });
    const temperatureC = world.thermometer ? 20 + warmerC : null;
    const { plusMinus } = uncertaintyOf(calibrated, { ...reading, stepCounts: 1, temperatureC });
    const percent = readCurve(calibrated.curve, reading.rawCounts, temperatureC).percent;
    stated.push(plusMinus);
    errors.push(Math.abs(percent - trial.truth(wetness)));
  }
  return {
    school,
    world: world.name,
    within: errors.filter((error, at) => error <= (stated[at] ?? 0)).length / errors.length,
    refused: refused / trials,
    medianStated: quantile(stated, 0.5),
    known: quantile(errors, 0.95),
  };
}

/** @param trials probes for each school and world */
export const calibrationRows = (
  trials: number,
  schools: readonly string[] = Object.keys(SCHOOLS),
): readonly CalibrationRow[] =>
  schools.flatMap((school) => WORLDS.map((world) => rowOf(school, world, trials)));

export function benchCalibration(trials = 1000): void {
  console.log(
    `\nCalibration, ${trials} seeded probes for each school and world: how often the truth lies within the stated ± (wanted: 90 % in each, 93 to 98 % in the mix), and the median ± beside what one would state who knew the world (wanted: at most 1.5)`,
  );
  for (const school of Object.keys(SCHOOLS)) {
    const rows = calibrationRows(trials, [school]);
    console.log(`  ${school}`);
    for (const row of rows)
      console.log(
        `    ${row.world.padEnd(30)} ${(100 * row.within).toFixed(1).padStart(5)} %  ± ${row.medianStated.toFixed(1).padStart(4)} of ${row.known.toFixed(1).padStart(4)} %  ${(row.medianStated / row.known).toFixed(2)}  refused ${(100 * row.refused).toFixed(1)} %`,
      );
    const mix = rows.reduce((sum, row) => sum + row.within, 0) / rows.length;
    console.log(`    ${'mix'.padEnd(30)} ${(100 * mix).toFixed(1).padStart(5)} %`);
  }
}
