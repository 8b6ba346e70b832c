/** What a hands-free run found: air and water of probes become their first test, their references and their calibration, in one step. */
import type { CheckContext } from '../../calibration/checks.ts';
import { noiseOfRun, outcomeOf, worthOf, type Outcome } from '../../calibration/run.ts';
import { uncertaintyOf } from '../../calibration/uncertainty.ts';
import { setFirstTest } from './bench.ts';
import { addCapture, finishRun, startRun } from './calibrations.ts';
import { runOf } from '../bind/plotParts.ts';
import { byId } from '../../quantity/byId.ts';
import type { Calibration, Capture, Garden } from '../document/schema.ts';

type Making = { readonly random: () => number; readonly nowIso: string };

const GOLDEN = (Math.sqrt(5) - 1) / 2;

/** Air and water of one probe. */
export type Pair = {
  readonly channelId: string;
  readonly air: Capture;
  readonly water: Capture;
  readonly temperatureC: number | null;
};

/** The run that a pair makes, as if it had been captured by hand. */
function withRun(garden: Garden, pair: Pair, making: Making): Garden {
  const begun = startRun(garden, pair.channelId, 'air-water', making);
  return (['air', 'water'] as const).reduce(
    (next, condition) =>
      addCapture(
        next,
        pair.channelId,
        {
          condition,
          typed: null,
          felt: null,
          temperatureC: pair.temperatureC,
          capture: pair[condition],
        },
        null,
        making.random,
      ),
    begun,
  );
}

/** What a pair would come to: the outcome of its run, and the ± of a reading in the middle, percent; null where there is no curve. */
export function foreseePair(
  garden: Garden,
  pair: Pair,
  context: CheckContext,
): { readonly findings: Outcome['findings']; readonly plusMinus: number | null } | null {
  // Ids of a run that nobody keeps: no two alike, and the same each time.
  let turn = 0;
  const random = () => (turn = (turn + GOLDEN) % 1);
  const run = runOf(withRun(garden, pair, { random, nowIso: pair.water.takenAt }), pair.channelId);
  if (!run) return null;
  const outcome = outcomeOf(run, context);
  const { calibrated: made, findings, refused } = worthOf(outcome, outcome.chosen, noiseOfRun(run));
  if (!made || refused) return { findings, plusMinus: null };
  const middle = (made.curve.dryCounts + made.curve.wetCounts) / 2;
  const { plusMinus } = uncertaintyOf(made, {
    rawCounts: middle,
    noiseCounts: noiseOfRun(run),
    readings: 10,
    stepCounts: null,
    temperatureC: null,
  });
  return { findings, plusMinus };
}

/**
 * Keeps pairs: as air and water of the first test, and as a calibration in use. One that the checks refuse stays as a run under way, so that it can be seen why.
 * @param contextOf what the checks need to know of a channel
 */
export function keepPairs(
  garden: Garden,
  pairs: readonly Pair[],
  contextOf: (channelId: string) => CheckContext,
  making: Making,
): { readonly garden: Garden; readonly made: readonly Calibration[]; readonly refused: readonly string[] } {
  let next = garden;
  const made: Calibration[] = [];
  const refused: string[] = [];
  for (const pair of pairs) {
    const probe = byId(next.channels, pair.channelId)?.probeId ?? null;
    if (probe === null) continue;
    for (const step of ['air', 'water'] as const) {
      const { rawCounts, noiseCounts, takenAt, simulated } = pair[step];
      next = setFirstTest(next, probe, step, { rawCounts, noiseCounts, takenAt, simulated });
    }
    next = withRun(next, pair, making);
    const done = finishRun(
      next,
      pair.channelId,
      contextOf(pair.channelId),
      { kind: 'line', who: '', note: '', recalibrateBy: null },
      making,
    );
    if (done.ok) {
      next = done.value.garden;
      made.push(done.value.calibration);
    } else refused.push(pair.channelId);
  }
  return { garden: next, made, refused };
}
