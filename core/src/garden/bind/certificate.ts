/** A calibration on paper and in files: everything that it rests on, with what each number means. */
import { byId } from '../../quantity/byId.ts';
import { fitTable } from '../../calibration/boardTable.ts';
import { percentPerCount } from '../../calibration/curve.ts';
import { methodOf } from '../../calibration/methods.ts';
import { outcomeOf } from '../../calibration/run.ts';
import { bandOf } from '../../calibration/uncertainty.ts';
import { percentUnit } from '../../quantity/percentKind.ts';
import { writeCsv } from '../../records/csv.ts';
import { calibratedOfVersion, curveOf, markOf } from './curveOf.ts';
import type { Calibration, Garden } from '../document/schema.ts';
import { hasStopped } from '../../settling/settlingWatch.ts';

export const CERTIFICATE_FORMAT = 'plain-trowel-calibration';
const BAND_ROWS = 11;
const round = (value: number, decimals: number) => Number(value.toFixed(decimals));

export type Certificate = {
  readonly format: typeof CERTIFICATE_FORMAT;
  readonly version: 2;
  readonly garden: string;
  readonly plot: string;
  readonly probe: { readonly label: string; readonly kind: string; readonly depthCm: number };
  readonly board: { readonly name: string; readonly traits: string; readonly supplyV: number };
  readonly method: string;
  readonly percent: string;
  readonly curve: string;
  readonly madeAt: string;
  readonly who: string;
  readonly note: string;
  readonly soil: string;
  readonly temperatureC: number | null;
  readonly simulated: boolean;
  readonly guess: boolean;
  readonly recalibrateBy: string | null;
  readonly warnings: readonly string[];
  readonly points: readonly {
    readonly condition: string;
    readonly percent: number | null;
    readonly rawCounts: readonly number[];
    readonly noiseCounts: number;
    readonly settled: boolean;
    readonly used: boolean;
    readonly takenAt: string;
  }[];
  /** Width of the working range, and what a percent is worth in the middle of it, raw counts. */
  readonly spanCounts: number;
  readonly countsPerPercent: number;
  /** What a single pushing in scatters by, standard deviation, counts and percent; null where it cannot be worked out any more. */
  readonly repeatability: { readonly counts: number; readonly percent: number } | null;
  /** What one step of the converter is worth, percent. */
  readonly quantisationPercent: number;
  /** What it was taken into use in spite of; the note says why. */
  readonly marks: readonly string[];
  /** Along the working range: raw counts, percent, ± percent (95 in 100). */
  readonly scale: readonly {
    readonly rawCounts: number;
    readonly percent: number;
    readonly plusMinus: number;
  }[];
  readonly table: readonly { readonly raw: number; readonly tenths: number }[];
  readonly tableLargestErrorTenths: number;
};

/** Everything about one version. Null when its curve cannot be read, which the schema does not let in. */
export function certificateOf(garden: Garden, calibration: Calibration): Certificate | null {
  const curve = curveOf(calibration);
  const calibrated = calibratedOfVersion(calibration);
  if (!curve) return null;
  const channel = byId(garden.channels, calibration.channelId);
  const probe = byId(garden.probes, channel?.probeId);
  const plot = byId(garden.plots, probe?.plotId);
  const board = byId(garden.boards, calibration.place.boardId);
  const outcome = outcomeOf(calibration, { probeKind: null, fullScaleCounts: null, nowMs: 0 });
  const { table, largestTenths } = fitTable(curve);
  const worth = percentPerCount(curve, (curve.dryCounts + curve.wetCounts) / 2);
  return {
    format: CERTIFICATE_FORMAT,
    version: 2,
    garden: garden.name,
    plot: plot?.name ?? '',
    probe: { label: probe?.label ?? '', kind: probe?.kind ?? '', depthCm: calibration.place.depthCm },
    board: { name: board?.name ?? '', traits: board?.traits ?? '', supplyV: calibration.place.supplyV },
    method: methodOf(calibration.method).name,
    percent: percentUnit(calibration.percentKind),
    curve: calibration.shape.kind,
    madeAt: calibration.madeAt,
    who: calibration.who,
    note: calibration.note,
    soil: calibration.place.soil,
    temperatureC: calibration.place.temperatureC,
    simulated: calibration.points.some((point) => point.captures.some((one) => one.simulated)),
    guess: calibration.guessOf !== null,
    recalibrateBy: calibration.recalibrateBy,
    warnings: calibration.warnings,
    points: calibration.points.map((point) => ({
      condition: point.felt ?? point.condition,
      percent: percentOf(outcome.fitPoints, point.id),
      rawCounts: point.captures.map((one) => one.rawCounts),
      noiseCounts: round(Math.max(0, ...point.captures.map((one) => one.noiseCounts)), 2),
      settled: point.captures.every((one) => hasStopped(one.settling?.verdict)),
      used: point.used,
      takenAt: point.captures.at(-1)?.takenAt ?? calibration.madeAt,
    })),
    spanCounts: round(curve.spanCounts, 1),
    countsPerPercent: round(1 / worth, 2),
    repeatability: calibrated && {
      counts: round(calibrated.insertionCounts, 1),
      percent: round(worth * calibrated.insertionCounts, 2),
    },
    quantisationPercent: round(worth, 3),
    marks: markOf(calibration)?.kinds ?? [],
    scale: calibrated
      ? bandOf(calibrated, BAND_ROWS).map((one) => ({
          rawCounts: Math.round(one.counts),
          percent: round(one.percent, 1),
          plusMinus: round(one.plusMinus, 1),
        }))
      : [],
    table,
    tableLargestErrorTenths: round(largestTenths, 1),
  };
}

function percentOf(
  points: readonly { readonly pointId: string | null; readonly percent: number }[],
  id: string,
): number | null {
  const point = points.find((one) => one.pointId === id);
  return point ? round(point.percent, 2) : null;
}

export const certificateJson = (of: Certificate): string => `${JSON.stringify(of, null, 2)}\n`;

/** The scale as rows, each with the probe, the day and the supply that it holds for; RFC 4180. */
export const certificateCsv = (of: Certificate): string =>
  writeCsv(
    ['probe', 'board', 'supply_v', 'made_at', 'raw_counts', `percent (${of.percent})`, 'plus_minus'],
    of.scale.map((one) => [
      of.probe.label,
      of.board.name,
      of.board.supplyV,
      of.madeAt,
      one.rawCounts,
      one.percent,
      one.plusMinus,
    ]),
  );

/** The board's table as rows: raw counts, tenths of a percent. */
export const tableCsv = (table: Certificate['table']): string =>
  writeCsv(
    ['raw', 'tenths'],
    table.map((one) => [one.raw, one.tenths]),
  );
