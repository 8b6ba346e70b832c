/** Changes that calibrating makes to a garden: runs begun, captured into, finished; versions taken into use. Each gives a new garden. */
import { byId } from '../../quantity/byId.ts';
import { runOf } from '../bind/plotParts.ts';
import type { BandName } from '../../quantity/bands.ts';
import { edgesByLimits, edgesNear, FEEL_EDGES, type BandEdges } from '../../quantity/bands.ts';
import { checkLimits } from '../../control/limits.ts';
import { withFirstLimits } from '../bind/suggested.ts';
import { edgesAfter } from '../bind/words.ts';
import type { Condition, MethodId } from '../../calibration/conditions.ts';
import type { SoilFacts } from '../../calibration/convertPercent.ts';
import { countsAtPercent, readCurve, type Curve, type CurveKind } from '../../calibration/curve.ts';
import { edgesByFeel } from '../../calibration/bandsByFeel.ts';
import { typedCounts } from '../../calibration/runPoint.ts';
import { CUT_OFFS } from '../../calibration/cutOffs.ts';
import { methodOf, mixingInputs, usualInputs } from '../../calibration/methods.ts';
import { planMixing } from '../../calibration/mixing.ts';
import { noiseOfRun, outcomeOf, worthOf, type Outcome } from '../../calibration/run.ts';
import { needsReason, type CheckContext } from '../../calibration/checks.ts';
import { fail, ok, type Result } from '../../quantity/result.ts';
import { curveOf } from '../bind/curveOf.ts';
import { makeId } from '../document/ids.ts';
import type { Calibration, Capture, Channel, Garden, PointOf, Run } from '../document/schema.ts';

type Making = { readonly random: () => number; readonly nowIso: string };

/** Versions of a channel, newest first. */
export const versionsOf = (garden: Garden, channelId: string): readonly Calibration[] =>
  garden.calibrations.filter((one) => one.channelId === channelId).reverse();

const changeRun = (garden: Garden, channelId: string, change: (run: Run) => Run): Garden => ({
  ...garden,
  runs: garden.runs.map((one) => (one.channelId === channelId ? change(one) : one)),
});

/** Begins a run on a channel; one that was under way there is given up. */
export function startRun(garden: Garden, channelId: string, method: MethodId, making: Making): Garden {
  const rest = garden.runs.filter((one) => one.channelId !== channelId);
  const run: Run = {
    id: makeId('run', new Set(garden.runs.map((one) => one.id)), making.random),
    channelId,
    method,
    inputs: usualInputs(methodOf(method)),
    points: [],
    convert: null,
    startedAt: making.nowIso,
  };
  return { ...garden, runs: [...rest, run] };
}

export const giveUpRun = (garden: Garden, channelId: string): Garden => ({
  ...garden,
  runs: garden.runs.filter((one) => one.channelId !== channelId),
});

/** Sets a number that the run asks for; null takes it away. */
export const setRunInput = (garden: Garden, channelId: string, key: string, value: number | null): Garden =>
  changeRun(garden, channelId, (run) => {
    const { [key]: _old, ...rest } = run.inputs;
    return { ...run, inputs: value === null ? rest : { ...rest, [key]: value } };
  });

export const setRunConversion = (garden: Garden, channelId: string, convert: Run['convert']): Garden =>
  changeRun(garden, channelId, (run) => ({ ...run, convert }));

export type Captured = {
  readonly condition: Condition;
  readonly typed: number | null;
  readonly felt: BandName | null;
  readonly temperatureC: number | null;
  readonly capture: Capture;
};

/** Adds a capture: to the point that is repeated, or as a point of its own. @param pointId of the point to repeat; null for a new one */
export function addCapture(
  garden: Garden,
  channelId: string,
  captured: Captured,
  pointId: string | null,
  random: () => number,
): Garden {
  return changeRun(garden, channelId, (run) => {
    const { capture, ...of } = captured;
    const held = byId(run.points, pointId);
    if (held)
      return {
        ...run,
        points: run.points.map((one) =>
          one === held
            ? { ...one, ...of, captures: typedCounts(of) === null ? [...one.captures, capture] : [capture] }
            : one,
        ),
      };
    const id = makeId('point', new Set(run.points.map((one) => one.id)), random);
    return { ...run, points: [...run.points, { id, ...of, used: true, captures: [capture] }] };
  });
}

/** Leaves a point out of the fit, or takes it in again; it stays in the record. */
export const setPointUsed = (garden: Garden, channelId: string, pointId: string, used: boolean): Garden =>
  changeRun(garden, channelId, (run) => ({
    ...run,
    points: run.points.map((one) => (one.id === pointId ? { ...one, used } : one)),
  }));

/** Takes a capture of a point back, to be done again; a point without any goes. @param at which one; the newest unless it is said */
export const takeBackCapture = (garden: Garden, channelId: string, pointId: string, at = -1): Garden =>
  changeRun(garden, channelId, (run) => ({
    ...run,
    points: run.points
      .map((one): PointOf => {
        const place = at < 0 ? one.captures.length + at : at;
        return one.id === pointId ? { ...one, captures: one.captures.filter((_, of) => of !== place) } : one;
      })
      .filter((one) => one.captures.length > 0),
  }));

/** Exchanges what two points were captured for: the captures stay as they are, what they stand for changes sides. */
export const exchangePoints = (garden: Garden, channelId: string, oneId: string, otherId: string): Garden =>
  changeRun(garden, channelId, (run) => {
    const [one, other] = [byId(run.points, oneId), byId(run.points, otherId)];
    if (!one || !other) return run;
    const meant = ({ condition, typed, felt }: PointOf) => ({ condition, typed, felt });
    return {
      ...run,
      points: run.points.map((point) =>
        point === one ? { ...point, ...meant(other) } : point === other ? { ...point, ...meant(one) } : point,
      ),
    };
  });

/** Begins a run with what an earlier version was made of, so that one reference can be repeated without the others. */
export function reopenCalibration(garden: Garden, calibrationId: string, making: Making): Garden {
  const from = byId(garden.calibrations, calibrationId);
  if (!from) return garden;
  const begun = startRun(garden, from.channelId, from.method, making);
  return changeRun(begun, from.channelId, (run) => ({
    ...run,
    inputs: from.inputs,
    points: from.points,
    convert: from.convert,
  }));
}

export type Finishing = {
  readonly kind: CurveKind;
  readonly who: string;
  readonly note: string;
  readonly recalibrateBy: string | null;
};
export type FinishIssue =
  | { readonly kind: 'no-run' }
  | { readonly kind: 'no-curve' }
  | { readonly kind: 'refused'; readonly findings: Outcome['findings'] }
  /** What stands against it may be passed over only with a note that says why. */
  | { readonly kind: 'no-reason' };

/** Makes the run's calibration and takes it into use. Refused while a finding stands that cannot be passed over. */
export function finishRun(
  garden: Garden,
  channelId: string,
  context: CheckContext,
  finishing: Finishing,
  making: Making,
): Result<{ readonly garden: Garden; readonly calibration: Calibration }, FinishIssue> {
  const run = runOf(garden, channelId);
  if (!run) return fail({ kind: 'no-run' });
  const outcome = outcomeOf(run, context);
  const worth = worthOf(outcome, finishing.kind, noiseOfRun(run));
  if (worth.refused) return fail({ kind: 'refused', findings: worth.findings });
  if (needsReason(worth.findings) && finishing.note.trim() === '') return fail({ kind: 'no-reason' });
  const made = worth.calibrated;
  const first = run.points.find((point) => point.used)?.captures[0];
  const channel = byId(garden.channels, channelId);
  const probe = byId(garden.probes, channel?.probeId);
  const plot = byId(garden.plots, probe?.plotId);
  if (!made || !first) return fail({ kind: 'no-curve' });
  const { curve } = made;
  const { id: _id, startedAt: _started, ...gathered } = run;
  const calibration: Calibration = {
    ...gathered,
    id: makeId('cal', new Set(garden.calibrations.map((one) => one.id)), making.random),
    percentKind: curve.percentKind,
    shape: structuredClone(curve.shape) as Calibration['shape'],
    range: {
      lowCounts: Math.min(curve.dryCounts, curve.wetCounts),
      highCounts: Math.max(curve.dryCounts, curve.wetCounts),
    },
    noiseCounts: curve.noiseCounts,
    place: {
      boardId: first.boardId,
      supplyV: first.supplyV,
      depthCm: probe?.depthCm ?? 0,
      soil: plot?.soil.name ?? '',
      temperatureC: made.support.atC,
    },
    who: finishing.who,
    note: finishing.note,
    warnings: worth.findings.map((one) => one.kind),
    guessOf: null,
    madeAt: making.nowIso,
    recalibrateBy: finishing.recalibrateBy,
  };
  const withVersion = {
    ...giveUpRun(garden, channelId),
    calibrations: [...garden.calibrations, calibration],
  };
  const used = useCalibration(withVersion, calibration.id);
  return ok({ garden: afterRun(used, run, outcome, curve, plot?.id ?? null), calibration });
}

/** What a run found out beside the curve goes to the plot: a bulk density, bands by feel. */
function afterRun(garden: Garden, run: Run, outcome: Outcome, curve: Curve, plotId: string | null): Garden {
  const plan = run.method === 'mixing' ? planMixing(mixingInputs(run.inputs)) : null;
  const { feel } = outcome;
  const found: Garden = {
    ...garden,
    plots: garden.plots.map((plot) => {
      if (plot.id !== plotId) return plot;
      const soil = plan?.ok
        ? { ...plot.soil, bulkDensity: Math.round(plan.value.bulkDensity * 1000) / 1000 }
        : plot.soil;
      if (run.method === 'cut-offs') return { ...plot, soil, ...byCutOffs(plot) };
      if (!feel) return { ...plot, soil };
      // The scale of such a run has the words where they usually stand, so words that nobody felt stay there.
      const edges = edgesByFeel(feel.cuts, (counts) => 10 * readCurve(curve, counts).percent, FEEL_EDGES);
      return {
        ...plot,
        soil,
        bandEdges: [...edges],
        limits: limitsByFeel(edges, plot.limits),
        limitsSet: true,
      };
    }),
  };
  return plotId === null ? found : withWords(garden, found, plotId);
}

/** The two cut-offs are the limits, and give the words. */
function byCutOffs({ limits }: Plot): Pick<Plot, 'limits' | 'limitsSet' | 'bandEdges'> {
  const [startTenths, stopTenths] = [10 * CUT_OFFS.start, 10 * CUT_OFFS.stop];
  return {
    limits: { ...limits, startTenths, stopTenths },
    limitsSet: true,
    bandEdges: [...edgesByLimits(startTenths, stopTenths, { wiltingTenths: null, capacityTenths: null })],
  };
}

/** Water from where “low” ends to where “wet” begins. */
function limitsByFeel(edges: BandEdges, before: Plot['limits']): Plot['limits'] {
  const limits = { ...before, startTenths: edges[1], stopTenths: edges[2] };
  return checkLimits(limits, 0) ? before : limits;
}

/**
 * Takes a version into use. Limits and bands were set in the percent of the version before; where the kind of percent changes they keep their raw values,
 * for those are what the board compares.
 */
export function useCalibration(garden: Garden, calibrationId: string): Garden {
  const next = byId(garden.calibrations, calibrationId);
  const channel = byId(garden.channels, next?.channelId);
  if (!next || !channel) return garden;
  const before = byId(garden.calibrations, channel.calibrationId) ?? null;
  const channels = garden.channels.map((one): Channel =>
    one.id === channel.id ? { ...one, calibrationId } : one,
  );
  const used = { ...garden, channels };
  const plotId = byId(garden.probes, channel.probeId)?.plotId ?? null;
  if (plotId === null || byId(garden.plots, plotId) === undefined) return used;
  return withWords(garden, withFirstLimits(turnedTo(used, plotId, before, next), plotId), plotId);
}

/** The words go with limits and soil as they are now, unless a person has moved them apart. */
const withWords = (before: Garden, after: Garden, plotId: string): Garden => ({
  ...after,
  plots: after.plots.map((plot) =>
    plot.id === plotId ? { ...plot, bandEdges: [...edgesAfter(before, after, plotId, plot.limits)] } : plot,
  ),
});

/** Limits and words of a plot at the raw values that they had under the calibration before, where the kind of percent is another. */
function turnedTo(garden: Garden, plotId: string, before: Calibration | null, next: Calibration): Garden {
  const [from, to] = [before && curveOf(before), curveOf(next)];
  if (!before || !from || !to || before.percentKind === next.percentKind) return garden;
  const turn = (tenths: number) => Math.round(10 * readCurve(to, countsAtPercent(from, tenths / 10)).percent);
  return {
    ...garden,
    plots: garden.plots.map((plot) =>
      plot.id === plotId
        ? { ...plot, limits: turnLimits(plot.limits, turn), bandEdges: turnEdges(plot.bandEdges, turn) }
        : plot,
    ),
  };
}

type Plot = Garden['plots'][number];

function turnLimits(limits: Plot['limits'], turn: (tenths: number) => number): Plot['limits'] {
  const startTenths = Math.min(980, turn(limits.startTenths));
  const turned = {
    startTenths,
    stopTenths: Math.min(1000, Math.max(startTenths + 10, turn(limits.stopTenths))),
  };
  return checkLimits(turned, 0) ? limits : turned;
}

function turnEdges(
  [dry, low, right, wet]: Plot['bandEdges'],
  turn: (tenths: number) => number,
): Plot['bandEdges'] {
  return [...edgesNear([turn(dry), turn(low), turn(right), turn(wet)])];
}

/** Gives a sister probe a calibration as a starting guess, marked as one: every probe is its own. Null when it is not there. */
export function copyToSister(
  garden: Garden,
  calibrationId: string,
  channelId: string,
  making: Making,
): { readonly garden: Garden; readonly calibration: Calibration } | null {
  const from = byId(garden.calibrations, calibrationId);
  const channel = byId(garden.channels, channelId);
  if (!from || !channel || channel.id === from.channelId) return null;
  const calibration: Calibration = {
    ...from,
    id: makeId('cal', new Set(garden.calibrations.map((one) => one.id)), making.random),
    channelId,
    place: { ...from.place, boardId: channel.boardId },
    guessOf: from.id,
    madeAt: making.nowIso,
  };
  const held = { ...garden, calibrations: [...garden.calibrations, calibration] };
  return { garden: useCalibration(held, calibration.id), calibration };
}

/** Says what is known of a plot's soil. Limits that nobody has set come from it; words go along where they stand by it. */
export function setSoilFacts(
  garden: Garden,
  plotId: string,
  facts: Partial<SoilFacts & { readonly name: string; readonly kindId: string }>,
): Garden {
  const known: Garden = {
    ...garden,
    plots: garden.plots.map((plot) =>
      plot.id === plotId ? { ...plot, soil: { ...plot.soil, ...facts } } : plot,
    ),
  };
  return byId(garden.plots, plotId) ? withWords(garden, withFirstLimits(known, plotId), plotId) : known;
}

/** Sets or takes away the day on which a calibration is due again. */
export const setRecalibrateBy = (garden: Garden, calibrationId: string, day: string | null): Garden => ({
  ...garden,
  calibrations: garden.calibrations.map((one) =>
    one.id === calibrationId ? { ...one, recalibrateBy: day } : one,
  ),
});
