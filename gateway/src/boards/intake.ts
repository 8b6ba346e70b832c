/** What becomes of a report, whichever way it came: who it is from, whether it can be read, that it is on disk, and what the board is told. */
import { sensesOf } from '@plain-trowel/core/garden/bind/sensesOf';
import { readReport, type Answer, type Report, type ReportIssue } from '@plain-trowel/core/protocol/report';
import { readSenml } from '@plain-trowel/core/protocol/senml';
import type { Result } from '@plain-trowel/core/quantity/result';
import type { PublishedGardens } from '../gardens/published.ts';
import type { Mailbox } from '../mailbox/mailbox.ts';
import type { FarReadings } from './far.ts';
import type { BoardKey } from './keys.ts';
import type { Orders } from './orders.ts';
import type { BoardSettings } from './settings.ts';

export type Heard =
  | { readonly kind: 'answered'; readonly answer: Answer; readonly isNew: boolean }
  | { readonly kind: 'unreadable'; readonly issue: ReportIssue }
  /** The key is another board's. */
  | { readonly kind: 'not-its-key' }
  /** No room: the board keeps what it has and comes again. */
  | { readonly kind: 'full' };

/** How a report is written: our own way, or SenML with what belongs to the report beside it. */
export type Written =
  | { readonly kind: 'own' }
  | { readonly kind: 'senml'; readonly about: Pick<Report, 'board' | 'boot' | 'seq' | 'upS'> };

/** Reports are wanted so often, s. */
const EVERY_S = 10;
const DAY_S = 86_400;

export class Intake {
  private readonly senses = new Map<string, { revision: number; senses: ReturnType<typeof sensesOf> }>();

  constructor(
    private readonly mailbox: Mailbox,
    private readonly gardens: PublishedGardens,
    private readonly orders: Orders,
    private readonly settings: BoardSettings,
    private readonly far: FarReadings,
    private readonly nowMs: () => number,
  ) {}

  /** Takes a report in; done once it is on disk. */
  async hear(board: BoardKey, text: string, written: Written): Promise<Heard> {
    const receivedMs = this.nowMs();
    const read: Result<Report, ReportIssue> =
      written.kind === 'own' ? readReport(text) : readSenml(text, written.about, receivedMs / 1000);
    if (!read.ok) return { kind: 'unreadable', issue: read.issue };
    const report = read.value;
    if (report.board !== board.boardId) return { kind: 'not-its-key' };
    const put = await this.mailbox.put(board.gardenId, report, receivedMs, board.standIn);
    if (put.kind === 'full') return put;
    // Also of one that was had before: a crash may have come between the two.
    if (report.orders.length > 0) await this.orders.heard(board.gardenId, board.boardId, report.orders);
    return {
      kind: 'answered',
      answer: await this.answer(board, report, put.run),
      isNew: put.kind === 'kept',
    };
  }

  /** What a board is told after a report that was kept. */
  private async answer(board: BoardKey, report: Report, run: number): Promise<Answer> {
    const { gardenId, boardId } = board;
    const { boot, seq, revision } = report;
    const left = await this.settings.answering(gardenId, report);
    const nowMs = this.nowMs();
    const senses = this.sensesFor(gardenId);
    const local = senses?.localTime(nowMs) ?? null;
    const sun = senses?.sunTimes?.(nowMs) ?? null;
    return {
      seq,
      revision: left?.revision ?? revision ?? 0,
      settings: [...(left?.lines ?? [])],
      orders: await this.orders.forAnswer(gardenId, boardId, `${boot} ${run}`, nowMs),
      far: [...this.far.for(board, report, nowMs)],
      clock: local && { daySecond: local.daySecond % DAY_S, weekday: local.weekday },
      sun: sun && { riseS: sun.riseS % DAY_S, setS: sun.setS % DAY_S },
      everyS: EVERY_S,
    };
  }

  /** Local time and sun of a garden; null for one that nobody has published. */
  private sensesFor(gardenId: string): ReturnType<typeof sensesOf> | null {
    const published = this.gardens.get(gardenId);
    if (!published) return null;
    const made = this.senses.get(gardenId);
    if (made?.revision === published.revision) return made.senses;
    const senses = sensesOf(published.garden, () => null);
    this.senses.set(gardenId, { revision: published.revision, senses });
    return senses;
  }
}
