/** What is sent to a person who is not at the page: alerts as they are told, and a note once a day. Plain text, each with what it was judged by. */
import type { EventDraft } from '../records/event.ts';
import type { Garden } from '../garden/document/schema.ts';
import type { PlotView } from '../live/plotView.ts';
import { byId } from '../quantity/byId.ts';
import { formatDuration, formatVolume } from '../quantity/format.ts';
import { dayTime } from '../quantity/timeText.ts';
import { alertWords } from './alertWords.ts';
import { needsHeadline, needsOf, type NowKnown } from './needs.ts';
import { labelLine } from './plotWords.ts';

export type Letter = { readonly subject: string; readonly text: string };

export type AlertDraft = Extract<EventDraft, { readonly kind: 'alert' }>;

const PHASE: Readonly<Record<AlertDraft['phase'], string>> = {
  raised: '',
  repeated: 'still ',
  cleared: 'cleared: ',
  acknowledged: 'seen: ',
  snoozed: 'snoozed: ',
};

/** "Lemon barrel: still too dry" */
export const alertLine = ({ subject, phase, alert }: AlertDraft): string =>
  `${subject}: ${PHASE[phase]}${alertWords(alert)}`;

/** Alerts that came due at one moment, in one letter. */
export function alertLetter(
  garden: Garden,
  alerts: readonly AlertDraft[],
  viewOf: NowKnown['viewOf'],
): Letter {
  const [first] = alerts;
  const more = alerts.length - 1;
  const isSimulated = alerts.some(({ simulated }) => simulated);
  const subject = `${garden.name}: ${first ? alertLine(first) : 'no alert'}${more > 0 ? `, and ${more} more` : ''}`;
  const blocks = alerts.map((one) => {
    const view = one.plotId === null ? null : viewOf(one.plotId);
    return [
      alertLine(one),
      `  ${dayTime(one.atMs, garden.timeZone)}`,
      ...(view && one.alert !== 'recalibrate' ? [`  now ${labelLine(view)}`] : []),
    ].join('\n');
  });
  return {
    subject: oneLine(isSimulated ? `(stand-in) ${subject}` : subject),
    text: [
      ...(isSimulated ? ['From a stand-in of a board: no plant is concerned.'] : []),
      ...blocks,
      'It is repeated as Rules, Limits, Alerts says until it is cleared. "Seen" in the app ends that, but for a locked line.',
    ].join('\n\n'),
  };
}

/** The note of the day: what needs a person, and how everything stands. That it comes is itself the news that somebody watches. */
export function dailyNote(
  known: NowKnown,
  given: (lineId: string) => number | null,
  isSimulated: boolean,
): Letter {
  const { garden, nowMs } = known;
  const needs = needsOf(known);
  const headline = needsHeadline(known, needs);
  const plots = garden.plots.map((plot) => plotLine(garden, plot.id, known.viewOf(plot.id)));
  const lines = garden.waterLines.map(({ id, name }) => {
    const ml = given(id);
    return `${name}: ${ml === null ? 'nobody says what it gave' : `${formatVolume(ml)} in the last 24 h`}`;
  });
  const boards = known.boards.map(({ boardId, heardMs, isLost = false }) => {
    const name = byId(garden.boards, boardId)?.name ?? boardId;
    return `${name}: ${heardMs === null ? (isLost ? 'silent for long' : 'never heard') : `heard ${formatDuration(Math.max(0, Math.round((nowMs - heardMs) / 1000)))} ago`}`;
  });
  const list = (title: string, rows: readonly string[]) =>
    rows.length === 0 ? [] : [[title, ...rows.map((row) => `  ${row}`)].join('\n')];
  return {
    subject: oneLine(`${isSimulated ? '(stand-in) ' : ''}${garden.name}: ${headline}`),
    text: [
      headline,
      ...(isSimulated ? ['Some of it is from stand-ins of boards.'] : []),
      ...list(
        'What needs you',
        needs.map(
          ({ subject, says, why, isSeen, isBeginning }) =>
            `${subject}: ${says} (${why}${isSeen ? '; seen' : ''}${isBeginning ? '; not told yet' : ''})`,
        ),
      ),
      ...list('Plots', plots),
      ...list('Water', lines),
      ...list('Boards', boards),
      `Written ${dayTime(nowMs, garden.timeZone)}. This note comes every day: if it does not, the gateway, its network or the mail is down. Then look.`,
    ].join('\n\n'),
  };
}

const plotLine = (garden: Garden, plotId: string, view: PlotView | null): string =>
  `${byId(garden.plots, plotId)?.name ?? plotId}: ${view ? labelLine(view) : 'its board does not report here'}`;

/** Names are a person's own words: none of them ends the line of a header. */
const oneLine = (text: string): string => text.replace(/[\p{Cc}\u2028\u2029]+/gu, ' ').slice(0, 200);
