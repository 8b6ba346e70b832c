/** Where a garden stands in the building of it: the next step of the whole job, from the first plot to somebody who watches. */
import { doseFitOf } from '../garden/bind/lineDose.ts';
import { isDeciding } from '../garden/bind/scale.ts';
import { calibrationMismatch, plotParts } from '../garden/bind/plotParts.ts';
import { contradictions } from '../garden/bind/contradictions.ts';
import type { Garden } from '../garden/document/schema.ts';

export const STAGES = ['plan', 'read', 'calibrate', 'dose', 'limits', 'sketch', 'watch'] as const;
export type StageId = (typeof STAGES)[number];

export type Stage = {
  readonly id: StageId;
  readonly isDone: boolean;
  /** What is to be done, as one sentence; what has been done where it is. */
  readonly says: string;
  /** The plot that it is about first. */
  readonly plotId: string | null;
};

/** What a garden's document does not know. */
export type BuiltSoFar = {
  /** A reading of it has come at some time. */
  readonly hasRead: (channelId: string) => boolean;
  /** A board runs a program of ours, or a stand-in's. */
  readonly hasProgram: (boardId: string) => boolean;
  /** Somebody watches while no page is open. */
  readonly isWatched: boolean;
};

const counted = (count: number, one: string, more: string): string =>
  count === 1 ? one : `${count} ${more}`;

/** Every stage in the order of the work. One that has nothing to do in this garden is done. */
export function stagesOf(garden: Garden, soFar: BuiltSoFar): readonly Stage[] {
  const measured = garden.plots.flatMap((plot) => {
    const parts = plotParts(garden, plot.id);
    return parts?.channel ? [{ plot, parts, channel: parts.channel }] : [];
  });
  const unread = measured.filter(({ channel }) => !soFar.hasRead(channel.id));
  const uncalibrated = measured.filter(
    ({ parts, channel }) =>
      isDeciding(channel.quantity) && (parts.fit === null || calibrationMismatch(parts) !== null),
  );
  const untried = garden.waterLines.filter(
    (line) => line.program.kind !== 'alert-only' && !doseFitOf(line).ok,
  );
  const unsound = garden.waterLines.filter((line) => contradictions(garden, line).length > 0);
  const boards = new Set(
    garden.waterLines.filter(({ automatic }) => automatic).map(({ boardId }) => boardId),
  );
  const bare = garden.boards.filter(({ id }) => boards.has(id) && !soFar.hasProgram(id));
  const stage = (id: StageId, open: string | null, done: string, plotId: string | null = null): Stage => ({
    id,
    isDone: open === null,
    says: open ?? done,
    plotId,
  });
  const first = <T>(all: readonly T[], says: (one: T) => string): string | null => {
    const [one] = all;
    return one === undefined ? null : says(one);
  };
  return [
    stage(
      'plan',
      measured.length > 0
        ? null
        : garden.plots.length === 0
          ? 'Add the first plot.'
          : 'Give a plot its probe.',
      counted(measured.length, 'One plot has its probe.', 'plots have their probes.'),
    ),
    stage(
      'read',
      first(unread, ({ plot }) => `Read the probe in ${plot.name} for the first time.`),
      'Every probe has been read.',
      unread[0]?.plot.id,
    ),
    stage(
      'calibrate',
      first(uncalibrated, ({ plot }) => `Calibrate the probe in ${plot.name}.`),
      'Every probe that decides is calibrated.',
      uncalibrated[0]?.plot.id,
    ),
    stage(
      'dose',
      first(untried, ({ name }) => `Measure with a jug what ${name} gives.`),
      'Every water line is measured.',
      untried[0]?.plotId,
    ),
    stage(
      'limits',
      first(unsound, ({ name }) => `Put the settings of ${name} right: they contradict each other.`),
      'No settings contradict each other.',
      unsound[0]?.plotId,
    ),
    stage(
      'sketch',
      first(bare, ({ name }) => `Load ${name} with its program.`),
      'Every board that waters has its program.',
      garden.waterLines.find(({ boardId }) => boardId === bare[0]?.id)?.plotId,
    ),
    stage(
      'watch',
      soFar.isWatched ? null : 'Let the gateway watch it while no page is open.',
      'The gateway watches it while no page is open.',
    ),
  ];
}

/** The stage that is to be done next; null when all are done. */
export const nextStage = (stages: readonly Stage[]): Stage | null =>
  stages.find(({ isDone }) => !isDone) ?? null;
