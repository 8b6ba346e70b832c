import { readCurve, type CurveReading } from '../calibration/curve.ts';
import { plotState, type PlotState } from '../control/plotState.ts';
import { windowOf } from '../garden/bind/scale.ts';
import { decidedNow, isInAir, unknownOf, type Newest, type Vote } from '../garden/bind/decided.ts';
import { bandAt, type WordSchool } from '../quantity/bands.ts';
import type { Garden } from '../garden/document/schema.ts';
import type { PresentValue } from '../signal/presentValue.ts';
import { soilTemperatureNow } from './readingNow.ts';
import type { Silence } from './silence.ts';
import type { PercentScale } from '../quantity/percentKind.ts';
import { calibrationMismatch, DEFAULT_STALE_S, type PlotParts } from '../garden/bind/plotParts.ts';

/** How a plot stands, ready to be put into words. */
export type PlotView = {
  readonly state: PlotState;
  /** In which words it is told. */
  readonly words: WordSchool;
  readonly rawCounts: number | null;
  readonly atMs: number | null;
  readonly span: CurveReading | null;
  /** What its percent stands on; null while nothing gives one. */
  readonly scale: PercentScale | null;
  /** Soil temperature that the percent was put right by, where its calibration carries one, °C; null without. */
  readonly temperatureC: number | null;
  /** Of a plot that several probes decide together: what each of them says; null where one decides. */
  readonly votes: readonly Vote[] | null;
};

/**
 * @param reading newest value of the plot's channel, or null
 * @param isSilent its stream has stopped, sooner perhaps than the rules take it for stale
 */
export function viewPlot(
  parts: PlotParts,
  reading: { rawCounts: number; atMs: number } | null,
  nowMs: number,
  temperatureC: number | null = null,
  isSilent = false,
): PlotView {
  // A calibration of another supply or board is void: its percent would look right and be wrong.
  const span =
    reading && parts.fit && !calibrationMismatch(parts)
      ? readCurve(parts.fit, reading.rawCounts, temperatureC)
      : null;
  const rails = parts.channel
    ? windowOf(parts.garden, parts.channel)
    : { lowCounts: -Infinity, highCounts: Infinity };
  const known = !parts.channel
    ? ({ kind: 'no-probe' } as const)
    : !reading
      ? ({ kind: 'no-reading' } as const)
      : ({
          kind: 'reading',
          rawCounts: reading.rawCounts,
          ageS: (nowMs - reading.atMs) / 1000,
          tenths: span ? span.percent * 10 : null,
          isVoid: calibrationMismatch(parts) !== null,
          isInAir: isInAir(parts.garden, parts.channel, reading.rawCounts),
        } as const);
  const state =
    isSilent && known.kind === 'reading'
      ? 'stale'
      : plotState(known, {
          ...rails,
          staleAfterS: parts.line?.staleAfterS ?? DEFAULT_STALE_S,
          edges: parts.plot.bandEdges,
        });
  return {
    state,
    words: parts.plot.words,
    rawCounts: reading?.rawCounts ?? null,
    atMs: reading?.atMs ?? null,
    span,
    scale: parts.fit,
    temperatureC,
    votes: null,
  };
}

/** How a plot stands by all the probes that decide it together. */
export function viewTogether(parts: PlotParts, newest: Newest, nowMs: number): PlotView {
  const { tenths, votes } = decidedNow(
    parts.garden,
    parts.plot,
    newest,
    nowMs,
    parts.line?.staleAfterS ?? DEFAULT_STALE_S,
  );
  const times = votes.flatMap(({ channel }) => newest(channel.id)?.timeMs ?? []);
  const state = tenths === null ? unknownOf(votes) : bandAt(parts.plot.bandEdges, tenths);
  return {
    state,
    words: parts.plot.words,
    rawCounts: null,
    atMs: times.some(Number.isFinite) ? Math.max(...times) : null,
    span: tenths === null ? null : { percent: tenths / 10, beyondCounts: 0, clampedAt: null },
    scale: parts.fit,
    temperatureC: null,
    votes,
  };
}

/** What is heard of every channel at one moment. */
export type NowHeard = {
  readonly nowMs: number;
  readonly present: ReadonlyMap<string, PresentValue>;
  readonly silent: ReadonlyMap<string, Silence>;
};

/** The newest reading of a channel that was kept. */
export type Kept = { readonly raw: number; readonly timeMs: number };

/** How a plot stands by whatever decides it: one probe, or several together. */
export function decidedView(
  garden: Garden,
  parts: PlotParts,
  live: NowHeard,
  stored: ReadonlyMap<string, Kept>,
): PlotView {
  if (parts.deciders.by === 'one') return plotView(garden, parts, live, stored);
  return viewTogether(
    parts,
    (id) => {
      const heard = live.present.get(id) ?? live.silent.get(id);
      const kept = stored.get(id);
      return heard
        ? { raw: heard.rawCounts, timeMs: live.silent.has(id) ? -Infinity : heard.atMs }
        : kept
          ? { raw: kept.raw, timeMs: kept.timeMs }
          : null;
    },
    live.nowMs,
  );
}

/** How a plot stands by the one probe that a sheet is about. */
export function plotView(
  garden: Garden,
  parts: PlotParts,
  live: NowHeard,
  stored: ReadonlyMap<string, Kept>,
): PlotView {
  const id = parts.channel?.id ?? '';
  const present = live.present.get(id);
  const kept = stored.get(id);
  const silence = live.silent.get(id);
  const heard = present ?? silence;
  const reading = heard
    ? { rawCounts: heard.rawCounts, atMs: heard.atMs }
    : kept
      ? { rawCounts: kept.raw, atMs: kept.timeMs }
      : null;
  // A stored reading knows no temperature of its own.
  const temperatureC = present ? soilTemperatureNow(garden, parts.plot.id, live.present) : null;
  return viewPlot(parts, reading, live.nowMs, temperatureC, silence !== undefined);
}
