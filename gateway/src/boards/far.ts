/** What other boards have read that a board goes by: told with each answer, while it is young. */
import { planBoard } from '@plain-trowel/core/sketch/boardPlan';
import { wantedFar } from '@plain-trowel/core/sketch/far';
import type { Answer, Report } from '@plain-trowel/core/protocol/report';
import type { PublishedGardens } from '../gardens/published.ts';
import type { Teller } from '../telling/teller.ts';
import type { BoardKey } from './keys.ts';

/** What is older is not told: whoever goes by it would take it for now, ms. */
const YOUNG_MS = 60_000;

export class FarReadings {
  /** By garden and board the channels that it wants, of one revision of the garden. */
  private readonly wanted = new Map<
    string,
    { readonly revision: number; readonly channels: readonly string[] }
  >();

  constructor(
    private readonly gardens: PublishedGardens,
    private readonly watched: () => Pick<Teller, 'readingOf'>,
  ) {}

  /** None for a board that runs no program of ours. */
  for({ gardenId, boardId, standIn }: BoardKey, { program }: Report, nowMs: number): Answer['far'] {
    if (program === undefined) return [];
    return this.channelsOf(gardenId, boardId).flatMap((channelId) => {
      const reading = this.watched().readingOf(gardenId, channelId);
      // A real pump goes by no reading that was made up.
      const mayTell = reading && nowMs - reading.timeMs <= YOUNG_MS && (standIn || !reading.simulated);
      return mayTell ? [{ n: channelId, v: reading.raw }] : [];
    });
  }

  private channelsOf(gardenId: string, boardId: string): readonly string[] {
    const published = this.gardens.get(gardenId);
    if (!published) return [];
    const key = `${gardenId} ${boardId}`;
    const known = this.wanted.get(key);
    if (known?.revision === published.revision) return known.channels;
    const planned = planBoard(published.garden, boardId);
    const channels = planned.ok ? wantedFar(planned.plan.inputs) : [];
    this.wanted.set(key, { revision: published.revision, channels });
    return channels;
  }
}
