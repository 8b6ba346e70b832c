/**
 * Settings that lie at the gateway for a board until it reports: all of a change in one answer, under a revision that the board tells once it has taken them. A board that is off, or out
 * of reach, takes them when it is back; one that runs another program than they were made for is never told them. A board that cannot keep them (they hold no `save`) is told them again after
 * each start, as long as it runs the very program that took them.
 */
import type { Report } from '@plain-trowel/core/protocol/report';
import { frameNameOf } from '@plain-trowel/core/sketch/folder';
import { leftSettingsSchema, type LeftSettings } from '@plain-trowel/core/protocol/feed';
import { KeptTable } from '../mailbox/keptTable.ts';
import type { Store } from '../mailbox/store.ts';

/** What an answer carries of them. */
export type Told = { readonly revision: number; readonly lines: readonly string[] };

export class BoardSettings {
  private readonly table: KeptTable<LeftSettings>;
  /** What lies for boards to be told: asked with every report, so it is kept in mind. */
  private readonly lying: Map<string, LeftSettings>;

  constructor(store: Store) {
    this.table = new KeptTable(store, 'settings', leftSettingsSchema);
    this.lying = new Map(
      this.table.all().flatMap(({ name, value }) => (isToBeTold(value) ? [[name, value]] : [])),
    );
  }

  of(gardenId: string, boardId: string): LeftSettings | null {
    return this.table.get(nameOf(gardenId, boardId));
  }

  /** Leaves settings for a board; what lay for it before is not told any more. @param frame of the program that they are for */
  async leave(
    gardenId: string,
    boardId: string,
    { frame, lines }: Pick<LeftSettings, 'frame' | 'lines'>,
    nowMs: number,
  ): Promise<LeftSettings> {
    const revision = (this.of(gardenId, boardId)?.revision ?? 0) + 1;
    const left: LeftSettings = {
      revision,
      frame,
      lines,
      madeMs: nowMs,
      state: 'waiting',
      why: null,
      takenBy: null,
    };
    await this.become(nameOf(gardenId, boardId), left);
    return left;
  }

  /** Nothing lies for the board any more. What it has fetched it has. */
  async withdraw(gardenId: string, boardId: string): Promise<void> {
    const name = nameOf(gardenId, boardId);
    const left = this.lying.get(name);
    if (left) await this.become(name, { ...left, state: 'withdrawn' });
  }

  /** What the answer to a report carries; null: nothing. What the report says of earlier ones is noted. */
  async answering(gardenId: string, report: Report): Promise<Told | null> {
    const name = nameOf(gardenId, report.board);
    const left = this.lying.get(name);
    if (!left) return null;
    if (report.revision === left.revision) {
      if (left.state === 'waiting')
        await this.become(name, { ...left, state: 'taken', takenBy: report.program ?? null });
      return null;
    }
    // Loaded anew, it has settings of its own.
    if (left.state === 'taken') return report.program === left.takenBy ? left : null;
    const why = refusalIn(report, left.revision);
    if (why !== null) {
      await this.become(name, { ...left, state: 'refused', why });
      return null;
    }
    return report.program !== undefined && frameNameOf(report.program) === left.frame ? left : null;
  }

  private async become(name: string, left: LeftSettings): Promise<void> {
    await this.table.put(name, left);
    if (isToBeTold(left)) this.lying.set(name, left);
    else this.lying.delete(name);
  }
}

const isToBeTold = ({ state, lines }: LeftSettings): boolean =>
  state === 'waiting' || (state === 'taken' && !lines.includes('save'));

const nameOf = (gardenId: string, boardId: string): string => `${gardenId} ${boardId}`;

/** "# settings 3 refused set 1 start 90.0: above the stop limit" */
function refusalIn({ said }: Report, revision: number): string | null {
  for (const { text } of said) {
    const [, of, why] = /^# settings (\d+) refused (.+)$/.exec(text) ?? [];
    if (Number(of) === revision && why !== undefined) return why;
  }
  return null;
}
