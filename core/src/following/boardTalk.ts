import { byId } from '../quantity/byId.ts';
import type { Answers, ContactAnswer, LineAnswer } from '../control/host/answers.ts';
import type { LineOrder } from '../control/host/engineHost.ts';
import { plotParts } from '../garden/bind/plotParts.ts';
import { sensesOf } from '../garden/bind/sensesOf.ts';
import type { Garden } from '../garden/document/schema.ts';
import type { EventDraft } from '../records/event.ts';
import { contactEventDraft, lineEventDrafts } from '../records/lineEvents.ts';
import { contactKey, lampKey, probeKey } from '../sketch/settable.ts';
import { readTalk, type Said } from '../sketch/talk.ts';

/** What the board at the end of a line runs, as it says itself. */
export type RunningProgram = {
  readonly number: number;
  /** The same settings have the same name. */
  readonly name: string;
  /** By the id of the line: limits, dose and whether it waters by itself, as the board prints them. */
  readonly limits: Readonly<Record<string, Readonly<Record<string, string>>>>;
  /** By the name of an input what the board makes of it, tenths; null: it knows no percent. */
  readonly percents: Readonly<Record<string, number | null>>;
  /** Its newest lines that are no readings, the oldest first. */
  readonly recent: readonly string[];
  /** Its newest events, numbered as they came, the oldest first. */
  readonly events: readonly {
    readonly seq: number;
    readonly said: Said & { kind: 'event' | 'contact-event' };
  }[];
  /** What it answered last to something typed, and how often it has answered. */
  readonly answer: { readonly count: number; readonly said: Said & { kind: 'taken' | 'refused' } } | null;
};

/** A board that runs a program written here. */
export type BoardAtTheLine = {
  readonly boardId: string;
  readonly program: RunningProgram;
  /** Somebody sits at its cable; else it is spoken to from afar, through a gateway. */
  readonly isAtItsConsole: boolean;
  /** What was typed is answered within so long, ms. */
  readonly answersWithinMs: number;
  /** Types a line at its console. */
  readonly type: (text: string) => void;
  /** The number of a water line at its console; null while nobody knows it. */
  readonly numberOf: (lineId: string) => number | null;
};

/** What comes of what a board says. */
export type BoardUpdate =
  | { readonly kind: 'answers'; readonly answers: Answers }
  | { readonly kind: 'events'; readonly events: readonly EventDraft[] };

const ASKED_BY_THE_PAGE: ReadonlySet<Said['kind']> = new Set([
  'line',
  'skip',
  'lamp',
  'contact',
  'contacts',
  'limits',
  'lamp-limits',
  'contact-limits',
  'probe-limits',
  'lines',
  'percent',
  'version',
] as const);
const RECENT = 12;
const MOST_SHOWN = 160;
/** So often the board is asked how its lines stand, ms. */
const ASK_EVERY_MS = 5000;
/** Its seconds are not quite ours, and nights exist in which the hour changes. */
const CLOCK_EVERY_MS = 1_800_000;
const DAY_S = 86_400;
/** Told again and again in whole seconds the end of a skip wavers: nearer than this it is the same. */
const SAME_END_MS = 5000;
/** A board on a network fetches an order with one report and answers it with the next, ms. */
const FAR_ANSWER_MS = 45_000;

/**
 * Follows a board that runs a program of ours: what it says becomes answers and events, orders become what is typed at its console. A board that never says what
 * it runs is never typed to.
 */
export class BoardTalk {
  /** Null while it has not said what it runs; another object only when something of it has changed. */
  board: BoardAtTheLine | null = null;
  private ids: readonly string[] = [];
  private contactIds: readonly string[] = [];
  private contactAnswers: Record<string, ContactAnswer> = {};
  private answers: Record<string, LineAnswer> = {};
  private readonly skipEndsMs: Record<string, number> = {};
  private askedMs = -Infinity;
  private clockMs = -Infinity;
  /** So many of the next lines answer a person. */
  private asksShown = 0;

  /**
   * @param say types a line at the board's console
   * @param asks whether it asks by itself how lines stand and tells the time; over a network the board and the gateway do that
   */
  constructor(
    public garden: Garden,
    private readonly boardId: string,
    private readonly simulated: boolean,
    private readonly say: (text: string) => void,
    private readonly asks = true,
  ) {}

  /**
   * Takes a line of the board.
   * @param atMs the time of the line, ms since 1970
   * @param id by which an event in it is known wherever it is told again; null: nobody tells it again
   */
  hear(text: string, atMs: number, id: string | null = null): readonly BoardUpdate[] {
    const said = readTalk(text);
    const updates = (said ? this.take(said, atMs) : []).map((update) => withId(update, id));
    if (this.board && text.startsWith('# ') && this.isWorthShowing(said))
      this.run({ recent: [...this.board.program.recent, text.trim().slice(0, MOST_SHOWN)].slice(-RECENT) });
    return updates;
  }

  /** What the page asked for by itself is not shown again and again; what a person asked for is. */
  private isWorthShowing(said: Said | null): boolean {
    if (this.asksShown > 0) {
      this.asksShown -= 1;
      return true;
    }
    return said === null || !ASKED_BY_THE_PAGE.has(said.kind);
  }

  private take(said: Said, atMs: number): readonly BoardUpdate[] {
    switch (said.kind) {
      case 'version':
        this.meet(said, atMs);
        return [];
      case 'lines':
        this.ids = said.ids;
        this.run({});
        return [];
      case 'contacts':
        if (this.contactIds.length === 0) this.tellSun(atMs, said.ids.length);
        this.contactIds = said.ids;
        return [];
      case 'contact':
        return this.standContact(said, atMs);
      case 'contact-event':
        return this.switchContact(said, atMs);
      case 'percent':
        this.run({ percents: { ...this.board?.program.percents, [said.name]: said.tenths } });
        return [];
      case 'lamp':
        return [];
      case 'limits':
        return this.keepLimits(said);
      case 'lamp-limits':
        return this.keep(lampKey(said.lamp), said.values);
      case 'contact-limits':
        return this.keep(contactKey(said.contact), said.values);
      case 'probe-limits':
        return this.keep(probeKey(said.probe), said.values);
      case 'taken':
      case 'refused':
        this.run({ answer: { count: (this.board?.program.answer?.count ?? 0) + 1, said } });
        return [];
      case 'line':
        return this.stand(said, atMs);
      case 'skip':
        return this.standSkipped(said, atMs);
      case 'event':
        return this.happen(said, atMs);
    }
  }

  /** Asks how the lines stand, now and then, and tells it the time. */
  look(nowMs: number): void {
    if (!this.board || !this.asks) return;
    if (nowMs - this.clockMs >= CLOCK_EVERY_MS) this.tellTime(nowMs);
    if (nowMs - this.askedMs < ASK_EVERY_MS) return;
    this.askedMs = nowMs;
    this.say('all');
  }

  order(order: LineOrder): void {
    const number = this.ids.indexOf(order.lineId) + 1;
    if (number === 0) return;
    this.say(orderLineText(order, number));
  }

  private meet({ number, name }: { readonly number: number; readonly name: string }, atMs: number): void {
    const known = this.board?.program;
    if (known?.number === number && known.name === name) return;
    this.board = this.newBoard({
      number,
      name,
      limits: {},
      percents: {},
      recent: [],
      events: [],
      answer: null,
    });
    if (this.asks) {
      this.tellTime(atMs);
      this.say('limits');
    }
    this.askedMs = -Infinity;
  }

  /** Something of what it says about its program has changed. */
  private run(change: Partial<RunningProgram>): void {
    if (this.board) this.board = this.newBoard({ ...this.board.program, ...change });
  }

  private newBoard(program: RunningProgram): BoardAtTheLine {
    const { boardId, ids } = this;
    return {
      boardId,
      program,
      isAtItsConsole: this.asks,
      answersWithinMs: this.asks ? 2000 : FAR_ANSWER_MS,
      type: (text) => {
        this.asksShown = RECENT / 2;
        this.say(text);
      },
      numberOf: (lineId) => {
        const at = ids.indexOf(lineId);
        return at < 0 ? null : at + 1;
      },
    };
  }

  /** It has no clock of its own: timers and hours rest until it is told the time of the garden. */
  private tellTime(nowMs: number): void {
    this.clockMs = nowMs;
    const clock = sensesOf(this.garden, () => null).localTime(nowMs);
    if (clock) this.say(`clock ${clock.daySecond % DAY_S} ${clock.weekday}`);
    this.tellSun(nowMs, this.contactIds.length);
  }

  /** Lights may go by the sun; only a board that has contacts understands it. */
  private tellSun(nowMs: number, contacts: number): void {
    const sun = contacts > 0 && this.asks ? sensesOf(this.garden, () => null).sunTimes?.(nowMs) : null;
    if (sun) this.say(`sun ${sun.riseS % DAY_S} ${sun.setS % DAY_S}`);
  }

  private keepLimits(said: Said & { kind: 'limits' }): readonly BoardUpdate[] {
    const id = this.ids[said.line - 1];
    return id === undefined ? [] : this.keep(id, said.values);
  }

  private keep(key: string, values: Readonly<Record<string, string>>): readonly BoardUpdate[] {
    this.run({ limits: { ...this.board?.program.limits, [key]: values } });
    return [];
  }

  private stand(said: Said & { kind: 'line' }, atMs: number): readonly BoardUpdate[] {
    const id = this.ids[said.line - 1];
    if (id === undefined) return [];
    const before = this.answers[id];
    this.answers = {
      ...this.answers,
      [id]: {
        isOn: said.runs,
        reason: said.reason,
        runningSinceMs: said.runs ? (before?.runningSinceMs ?? atMs) : null,
        plannedS: said.runs ? (before?.plannedS ?? null) : null,
        mayStartAtMs: null,
        givenMl: said.todayMl,
        pulses: 0,
        isLocked: said.locked,
        // A line that is skipped says so in the line that follows.
        skippedUntilMs: null,
        noRise: 0,
      },
    };
    return [this.told()];
  }

  private happen(said: Said & { kind: 'event' }, atMs: number): readonly BoardUpdate[] {
    const id = this.ids[said.line - 1];
    const line = id === undefined ? null : byId(this.garden.waterLines, id);
    if (id === undefined || !line) return [];
    const { told } = said;
    const events = this.board?.program.events ?? [];
    this.run({ events: [...events, { seq: (events.at(-1)?.seq ?? 0) + 1, said }].slice(-RECENT) });
    const before = this.answers[id];
    if (told.kind === 'started' || told.kind === 'stopped') {
      const isOn = told.kind === 'started';
      this.answers = {
        ...this.answers,
        [id]: {
          ...(before ?? {
            mayStartAtMs: null,
            pulses: 0,
            isLocked: false,
            skippedUntilMs: null,
            noRise: 0,
            givenMl: 0,
          }),
          isOn,
          reason: told.reason,
          runningSinceMs: isOn ? atMs : null,
          plannedS: isOn ? said.plannedS : null,
        },
      };
    }
    // The sum of the day comes with the next look.
    this.askedMs = -Infinity;
    const drafts = lineEventDrafts(told, {
      atMs,
      plotId: line.plotId,
      boardId: this.boardId,
      lineId: id,
      lineName: line.name,
      seq: null,
      simulated: this.simulated,
      scale: plotParts(this.garden, line.plotId)?.fit ?? null,
    });
    return [this.told(), ...(drafts.length > 0 ? [{ kind: 'events', events: drafts } as const] : [])];
  }

  private standSkipped({ line, leftS }: Said & { kind: 'skip' }, atMs: number): readonly BoardUpdate[] {
    const id = this.ids[line - 1];
    const before = id === undefined ? undefined : this.answers[id];
    if (id === undefined || !before) return [];
    const toldMs = atMs + leftS * 1000;
    const knownMs = this.skipEndsMs[id] ?? -Infinity;
    const endMs = Math.abs(toldMs - knownMs) < SAME_END_MS ? knownMs : toldMs;
    this.skipEndsMs[id] = endMs;
    const skippedUntilMs = leftS > 0 ? endMs : null;
    this.answers = { ...this.answers, [id]: { ...before, skippedUntilMs } };
    return [this.told()];
  }

  private standContact(said: Said & { kind: 'contact' }, atMs: number): readonly BoardUpdate[] {
    const id = this.contactIds[said.contact - 1];
    if (id === undefined) return [];
    const before = this.contactAnswers[id];
    const { isOn, isResting, reason, todayS: dayS } = said;
    const isSame = before?.isOn === isOn && before.isResting === isResting;
    const sinceMs = isSame ? before.sinceMs : atMs;
    this.contactAnswers = { ...this.contactAnswers, [id]: { isOn, isResting, reason, sinceMs, dayS } };
    return [this.told()];
  }

  private switchContact(said: Said & { kind: 'contact-event' }, atMs: number): readonly BoardUpdate[] {
    const contact = byId(this.garden.contacts, this.contactIds[said.contact - 1]);
    if (!contact) return [];
    const events = this.board?.program.events ?? [];
    this.run({ events: [...events, { seq: (events.at(-1)?.seq ?? 0) + 1, said }].slice(-RECENT) });
    // How it stands comes with the next look.
    this.askedMs = -Infinity;
    const { plotId, name: contactName, rule } = contact;
    const draft = contactEventDraft(said.told, {
      atMs,
      plotId,
      boardId: this.boardId,
      simulated: this.simulated,
      contactName,
      use: rule.kind,
    });
    return [{ kind: 'events', events: [draft] }];
  }

  private told(): BoardUpdate {
    return { kind: 'answers', answers: { lines: this.answers, contacts: this.contactAnswers } };
  }
}

/** An order as it is typed at a console. @param number of its line there */
export function orderLineText(order: LineOrder, number: number): string {
  switch (order.kind) {
    case 'water':
      return `give ${number} ${order.volumeMl}`;
    case 'skip':
      return `skip ${number} ${order.forS}`;
    default:
      return `${order.kind} ${number}`;
  }
}

/** Events under a name that they keep. */
function withId(update: BoardUpdate, id: string | null): BoardUpdate {
  if (id === null || update.kind !== 'events') return update;
  return { kind: 'events', events: update.events.map((event, at) => ({ ...event, id: `${id} ${at}` })) };
}
