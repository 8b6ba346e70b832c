/**
 * What needs a person now, in order, each with its reason: for the sheet Today and for the note that the gateway sends each day. "Nothing" is only said where everything
 * is known.
 */
import type { AlertKind } from '../control/alerts.ts';
import { isUnknown, type Unknown } from '../control/plotState.ts';
import { contradictions } from '../garden/bind/contradictions.ts';
import { dueCalibrations } from '../garden/bind/dueCalibrations.ts';
import { calibrationMismatch, plotParts } from '../garden/bind/plotParts.ts';
import type { Garden, Plot } from '../garden/document/schema.ts';
import type { ActiveAlert, PendingAlert } from '../live/alertWatch.ts';
import type { PlotView } from '../live/plotView.ts';
import { byId } from '../quantity/byId.ts';
import { dayTime, shortTime } from '../quantity/timeText.ts';
import { alertWords } from './alertWords.ts';
import { labelLine, unknownWhy } from './plotWords.ts';

/** What is known at one moment, by whoever watches the garden. */
export type NowKnown = {
  readonly garden: Garden;
  readonly nowMs: number;
  /** Null for a plot that is not looked after here, as when its board reports elsewhere. */
  readonly viewOf: (plotId: string) => PlotView | null;
  readonly active: readonly ActiveAlert[];
  readonly pending: readonly PendingAlert[];
  /** Boards that should be reporting, with when each was heard last; empty where nobody expects any. One that was heard so long ago that nobody knows when is `lost`. */
  readonly boards: readonly {
    readonly boardId: string;
    readonly heardMs: number | null;
    readonly isLost?: boolean;
  }[];
  /** Reservoirs of which nobody knows whether they still have water. */
  readonly unknownTanks: readonly string[];
  /** Alerts that could not be sent, and by which way. */
  readonly unsent: readonly { readonly way: string; readonly count: number }[];
};

export type NeedKind = AlertKind | 'unknown' | 'tank-unknown' | 'never-heard' | 'contradiction' | 'unsent';

export type Need = {
  readonly key: string;
  readonly kind: NeedKind;
  /** Plot, board, tank, line or channel; empty where it is about none of them. */
  readonly subjectId: string;
  readonly subject: string;
  /** "too dry" */
  readonly says: string;
  /** What it is judged by, and since when. */
  readonly why: string;
  /** Why a plot is unknown. */
  readonly unknown: Unknown | null;
  readonly plotId: string | null;
  /** An alert that was raised, and has been seen. */
  readonly isSeen: boolean;
  /** So, but not for long enough that it is told. */
  readonly isBeginning: boolean;
  /** It was so when it was last known. */
  readonly isPast: boolean;
};

/** Most urgent first: what burns, what stands without water, what will, what cannot be known. */
const URGENCY: readonly NeedKind[] = [
  'frozen-charge',
  'line-locked',
  'out-of-soil',
  'tank-low',
  'tank-unknown',
  'cold',
  'hot',
  'dry',
  'silent-board',
  'never-heard',
  'probe-fault',
  'unknown',
  'contradiction',
  'battery-low',
  'wet',
  'unsent',
  'recalibrate',
];

/** Alerts by a plot's own moisture. */
const BY_READING: ReadonlySet<AlertKind> = new Set(['dry', 'wet']);

/** What needs a person, the most urgent first; what has been seen, and what is only beginning, behind the rest. */
export function needsOf(known: NowKnown): readonly Need[] {
  const alerts = [
    ...known.active.map((one) => ofAlert(known, one, one.raisedMs, one.acknowledged, false)),
    // In quiet hours one is raised and not told: then it stands among those that are.
    ...known.pending
      .filter(({ key }) => !known.active.some((one) => one.key === key))
      .map((one) => ofAlert(known, one, one.sinceMs, false, true)),
  ];
  const needs = [
    ...alerts,
    ...unheard(known),
    ...byBoard(known.garden, unknownPlots(known, alerts)),
    ...unknownTanks(known),
    ...contradicting(known),
    ...known.unsent.filter(({ count }) => count > 0).map(ofUnsent),
  ];
  // Why a plot is unknown comes before what it was.
  const rank = (one: Need) =>
    (one.isSeen ? 200 : 0) +
    (one.isBeginning ? 100 : 0) +
    (one.isPast ? URGENCY.indexOf('unknown') : URGENCY.indexOf(one.kind));
  return needs.sort((a, b) => rank(a) - rank(b));
}

function ofAlert(
  known: NowKnown,
  alert: Pick<ActiveAlert, 'key' | 'kind' | 'subject'>,
  sinceMs: number,
  isSeen: boolean,
  isBeginning: boolean,
): Need {
  const { garden } = known;
  const subjectId = alert.key.split(' ').at(-1) ?? '';
  const plotId = plotOf(garden, subjectId);
  const view = plotId === null ? null : known.viewOf(plotId);
  const reading = view && alert.kind !== 'recalibrate' ? `${labelLine(view)}; ` : '';
  // An alert stands while nobody knows better; what it says is then of the past.
  const isPast = BY_READING.has(alert.kind) && view !== null && isUnknown(view.state);
  return {
    key: alert.key,
    kind: alert.kind,
    subjectId,
    subject: alert.subject,
    says: isPast ? `was ${alertWords(alert.kind)} when it was last known` : alertWords(alert.kind),
    why: `${reading}${isBeginning ? 'began' : 'since'} ${dayTime(sinceMs, garden.timeZone)}`,
    unknown: null,
    plotId,
    isSeen,
    isBeginning,
    isPast,
  };
}

/** The plot that something belongs to; null for a board or a tank. */
function plotOf(garden: Garden, subjectId: string): string | null {
  const channel = byId(garden.channels, subjectId);
  return (
    byId(garden.plots, subjectId)?.id ??
    byId(garden.waterLines, subjectId)?.plotId ??
    byId(garden.probes, channel?.probeId)?.plotId ??
    null
  );
}

const about = (kind: NeedKind, subjectId: string): Pick<Need, 'key' | 'kind' | 'subjectId'> => ({
  key: `${kind} ${subjectId}`,
  kind,
  subjectId,
});
const PLAIN = { unknown: null, plotId: null, isSeen: false, isBeginning: false, isPast: false } as const;

/** Boards that should report, and never have. One that has fallen silent is an alert's business. */
const unheard = ({ garden, boards }: NowKnown): Need[] =>
  boards
    .filter(({ heardMs }) => heardMs === null)
    .map(({ boardId, isLost = false }) => ({
      ...PLAIN,
      ...about('never-heard', boardId),
      subject: byId(garden.boards, boardId)?.name ?? boardId,
      says: isLost ? 'has been silent for long' : 'has never reported',
      why: isLost
        ? 'other boards have sent thousands of reports since'
        : 'it has a key, and nothing has come from it',
    }));

/** Plots of which nothing is known, unless an alert about the plot or its board says so already. */
function unknownPlots(known: NowKnown, alerts: readonly Need[]): Need[] {
  const { garden, nowMs } = known;
  return garden.plots.flatMap((plot): Need[] => {
    const view = known.viewOf(plot.id);
    const parts = plotParts(garden, plot.id);
    if (!view || !parts || !isUnknown(view.state)) return [];
    const isTold = alerts.some(
      ({ plotId, kind, subjectId }) =>
        (plotId === plot.id && (kind === 'probe-fault' || kind === 'out-of-soil')) ||
        (kind === 'silent-board' && subjectId === parts.board?.id),
    );
    if (isTold) return [];
    const isVoid = calibrationMismatch(parts) !== null;
    return [
      {
        ...PLAIN,
        ...about('unknown', plot.id),
        subject: plot.name,
        says: `unknown: ${unknownWhy(view.state)}`,
        why: unknownReason(view, isVoid, nowMs, garden.timeZone),
        unknown: view.state,
        plotId: plot.id,
      },
    ];
  });
}

/** Several plots of one board of which nothing has come, or nothing more: that is one thing, and about the board. */
function byBoard(garden: Garden, needs: readonly Need[]): Need[] {
  const boardOf = ({ plotId, unknown }: Need): string | null =>
    plotId !== null && (unknown === 'no-reading' || unknown === 'stale')
      ? `${plotParts(garden, plotId)?.board?.id ?? ''} ${unknown}`
      : null;
  return needs.flatMap((need): Need[] => {
    const board = boardOf(need);
    const together = needs.filter((one) => board !== null && boardOf(one) === board);
    if (together.length < 2) return [need];
    if (together[0] !== need) return [];
    const parts = need.plotId === null ? null : plotParts(garden, need.plotId);
    return [
      {
        ...need,
        ...about('unknown', parts?.board?.id ?? ''),
        subject: parts?.board?.name ?? need.subject,
        says: need.unknown === 'stale' ? 'nothing more has come from it' : 'nothing has come from it yet',
        why: `nobody knows how these stand: ${together.map(({ subject }) => subject).join(', ')}`,
      },
    ];
  });
}

function unknownReason({ state, atMs }: PlotView, isVoid: boolean, nowMs: number, timeZone: string): string {
  if (state === 'no-probe') return 'nothing measures it';
  if (state === 'not-calibrated') return 'its raw counts mean nothing before it is calibrated';
  if (state === 'void' || isVoid) return 'its calibration was made with another supply or board';
  if (atMs === null || !Number.isFinite(atMs)) return 'nothing has come from its probe';
  const isToday = nowMs - atMs < 43_200_000;
  return `the last reading is of ${isToday ? shortTime(atMs, timeZone) : dayTime(atMs, timeZone)}`;
}

/** A reservoir that a line waters from by itself: while nobody knows it, the line gives nothing. */
const unknownTanks = ({ garden, unknownTanks: ids }: NowKnown): Need[] =>
  garden.reservoirs.flatMap((tank): Need[] => {
    const line = garden.waterLines.find(({ tankId, automatic }) => tankId === tank.id && automatic);
    if (!line || !ids.includes(tank.id)) return [];
    return [
      {
        ...PLAIN,
        ...about('tank-unknown', tank.id),
        subject: tank.name,
        says: 'nobody knows whether it still has water',
        why: `${line.name} gives nothing by itself until it is known`,
      },
    ];
  });

const contradicting = ({ garden }: NowKnown): Need[] =>
  garden.waterLines
    .filter((line) => line.automatic && contradictions(garden, line).length > 0)
    .map((line) => ({
      ...PLAIN,
      ...about('contradiction', line.id),
      subject: line.name,
      says: 'its settings contradict each other',
      why: 'it waters nothing by itself until that is solved',
      plotId: line.plotId,
    }));

const ofUnsent = ({ way, count }: NowKnown['unsent'][number]): Need => ({
  ...PLAIN,
  ...about('unsent', way),
  subject: `Alerts by ${way}`,
  says: count === 1 ? 'one could not be sent' : `${count} could not be sent`,
  why: 'what was to be told is not told',
});

/** What is coming, and can wait: calibrations that fall due within so many days. */
export const dueSoon = (garden: Garden, nowMs: number, days = 7) =>
  dueCalibrations(garden, nowMs).filter(
    ({ isNow, calibration }) =>
      !isNow && Date.parse(calibration.recalibrateBy ?? '') - nowMs < days * 86_400_000,
  );

/** Plots that somebody means to measure. */
const measured = (garden: Garden): readonly Plot[] =>
  garden.plots.filter((plot) => (plotParts(garden, plot.id)?.channel ?? null) !== null);

/** The main answer in one sentence. */
export function needsHeadline(known: NowKnown, needs: readonly Need[]): string {
  const now = needs.filter(({ isSeen, isBeginning }) => !isSeen && !isBeginning);
  const [first] = now;
  if (first) {
    return now.every(({ subject }) => subject === first.subject)
      ? `${first.subject} needs you. The rest can wait.`
      : `${now.length} things need you. ${first.subject} first.`;
  }
  const plots = measured(known.garden);
  if (plots.length === 0) return 'Nothing is measured yet.';
  const begins = needs.find(({ isBeginning }) => isBeginning);
  if (begins) return `Nothing needs you yet. Watch ${begins.subject}: ${begins.says}.`;
  if (needs.length > 0) return 'Nothing new needs you: what is wrong has been seen.';
  return plots.length === 1
    ? 'Nothing needs you.'
    : `Nothing needs you: all ${plots.length} plots are known.`;
}
