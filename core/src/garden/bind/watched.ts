/** What each kind of alert watches in a garden. Keys stay the same from one moment to the next. */
import { ALERT_KINDS, type AlertKind, type Watched } from '../../control/alerts.ts';
import type { SignalFacts, SignalLimits } from '../../control/signals.ts';
import type { Sense } from '../../control/conditions/conditions.ts';
import { ambientOf } from './ambient.ts';
import { NOTHING_CHOSEN } from '../document/waterSchema.ts';
import { dueCalibrations } from './dueCalibrations.ts';
import { DEFAULT_STALE_S, plotParts } from './plotParts.ts';
import { signalFacts, signalLimits, tankNow, valueNow, type Heard } from './plotFacts.ts';
import type { Garden, Plot } from '../document/schema.ts';

/** A board that prints nothing for so long is silent, s. */
const SILENT_S = 900;

/** A plot with what is so in it; plots without a probe are not watched. */
type Seen = {
  readonly plot: Plot;
  readonly facts: SignalFacts;
  readonly limits: SignalLimits;
  readonly isHeard: boolean;
  /** One of its probes has a fault, though the others may still decide; null where its board says nothing at all: that is no fault of a probe. */
  readonly hasFault: boolean | null;
  readonly isOutOfSoil: boolean;
};

/** Whether a board has said nothing for so long; null before its first word. */
function isBoardSilent(garden: Garden, boardId: string, afterS: number, heard: Heard): boolean | null {
  const times = garden.channels
    .filter((one) => one.boardId === boardId)
    .flatMap((one) => heard.newest(one.id)?.timeMs ?? []);
  return times.length === 0 ? null : heard.nowMs - Math.max(...times) > afterS * 1000;
}

const seenPlots = (garden: Garden, heard: Heard): Seen[] =>
  garden.plots.flatMap((plot): Seen[] => {
    const facts = signalFacts(garden, plot.id, heard);
    const parts = plotParts(garden, plot.id);
    const channels = parts?.deciders.channels ?? [];
    const staleS = parts?.line?.staleAfterS ?? DEFAULT_STALE_S;
    if (!facts || channels.length === 0) return [];
    const isHeard = channels.some((channel) => heard.newest(channel.id) !== null);
    return [
      {
        plot,
        facts,
        limits: signalLimits(plot),
        isHeard,
        hasFault: channels.every((one) => isBoardSilent(garden, one.boardId, staleS, heard))
          ? null
          : facts.hasFault,
        isOutOfSoil: facts.isOutOfSoil,
      },
    ];
  });

/** Whether a plot is watered by a line that runs by itself, so that falling below the start limit is no news. */
const isWatered = (garden: Garden, plotId: string): boolean =>
  garden.waterLines.some(
    (one) => one.plotId === plotId && one.automatic && one.program.kind !== 'alert-only',
  );

const about = <Kind extends AlertKind>(kind: Kind, subjectId: string, rest = '') =>
  ({ key: `${kind}${rest} ${subjectId}`, kind, subjectId }) as const;

/** Charged below freezing, a lithium cell plates metal and is spoilt, or burns later. A degree for the thermometer. */
const FREEZING_TENTHS_C = 10;

/** What is measured of a board itself, now; null while nobody says. */
const ofBoard = (garden: Garden, boardId: string, sense: Sense, heard: Heard): number | null =>
  valueNow(garden, ambientOf(garden, { boardId, plotId: '', chosen: NOTHING_CHOSEN }, sense), heard);

/** Soil and air of a plot against their limits, where it has some. */
function warmth({ plot, facts, limits }: Seen, kind: 'hot' | 'cold'): Watched[] {
  const side = kind === 'hot' ? 'above' : 'below';
  const one = (rest: '' | ' air', value: number | null, limit: number | null): Watched[] =>
    limit === null ? [] : [{ ...about(kind, plot.id, rest), value, limit, side }];
  return kind === 'hot'
    ? [
        ...one('', facts.soilTenthsC, limits.soilHighTenthsC),
        ...one(' air', facts.airTenthsC, limits.airHighTenthsC),
      ]
    : [
        ...one('', facts.soilTenthsC, limits.soilLowTenthsC),
        ...one(' air', facts.airTenthsC, limits.airLowTenthsC),
      ];
}

type Look = { readonly garden: Garden; readonly heard: Heard; readonly plots: readonly Seen[] };

const WATCHES: Readonly<Record<AlertKind, (look: Look) => readonly Watched[]>> = {
  dry: ({ garden, plots }) =>
    plots.map(({ plot, facts, limits }) => ({
      ...about('dry', plot.id),
      value: facts.tenths,
      limit: isWatered(garden, plot.id) ? plot.bandEdges[0] : limits.dryTenths,
      side: 'below',
    })),
  wet: ({ plots }) =>
    plots.map(({ plot, facts, limits }) => ({
      ...about('wet', plot.id),
      value: facts.tenths,
      // A word begins at its edge, an alert above its limit: a tenth apart.
      limit: limits.wetTenths - 1,
      side: 'above',
    })),
  hot: ({ plots }) => plots.flatMap((one) => warmth(one, 'hot')),
  cold: ({ plots }) => plots.flatMap((one) => warmth(one, 'cold')),
  'probe-fault': ({ plots }) =>
    plots.map(({ plot, isHeard, hasFault }) => ({
      ...about('probe-fault', plot.id),
      holds: isHeard ? hasFault : null,
    })),
  'out-of-soil': ({ plots }) =>
    plots.map(({ plot, isHeard, isOutOfSoil }) => ({
      ...about('out-of-soil', plot.id),
      holds: isHeard ? isOutOfSoil : null,
    })),
  'silent-board': ({ garden, heard }) =>
    garden.boards.map((board) => ({
      ...about('silent-board', board.id),
      holds: isBoardSilent(garden, board.id, SILENT_S, heard),
    })),
  'tank-low': ({ garden, heard }) =>
    garden.reservoirs.map((tank) => ({
      ...about('tank-low', tank.id),
      holds: tankNow(tank, heard)?.isLow ?? null,
    })),
  'battery-low': ({ garden, heard }) =>
    garden.boards.flatMap((board): Watched[] => {
      const { batteryLowV } = board.watch;
      if (batteryLowV === null) return [];
      const volts = ofBoard(garden, board.id, 'battery', heard);
      return [
        {
          ...about('battery-low', board.id),
          value: volts === null ? null : Math.round(volts * 1000),
          limit: Math.round(batteryLowV * 1000),
          side: 'below',
        },
      ];
    }),
  'frozen-charge': ({ garden, heard }) =>
    garden.boards.flatMap((board): Watched[] => {
      if (!board.watch.isLithium) return [];
      const air = ofBoard(garden, board.id, 'airTenthsC', heard);
      return [
        {
          ...about('frozen-charge', board.id),
          value: air === null ? null : Math.round(air * 10),
          limit: FREEZING_TENTHS_C,
          side: 'below',
        },
      ];
    }),
  'line-locked': ({ garden, heard }) =>
    garden.waterLines.map((line) => ({ ...about('line-locked', line.id), holds: heard.isLocked(line.id) })),
  recalibrate: ({ garden, heard }) => {
    const due = new Set(
      dueCalibrations(garden, heard.nowMs)
        .filter((one) => one.isNow)
        .map((one) => one.channel.id),
    );
    return garden.channels
      .filter((one) => one.calibrationId !== null)
      .map((one) => ({ ...about('recalibrate', one.id), holds: due.has(one.id) }));
  },
};

/** Everything that alerts watch. */
export function watchedOf(garden: Garden, heard: Heard): readonly Watched[] {
  const look: Look = { garden, heard, plots: seenPlots(garden, heard) };
  return ALERT_KINDS.flatMap((kind) => WATCHES[kind](look));
}
