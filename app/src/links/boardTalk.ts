import { byId } from '@plain-trowel/core/quantity/byId';
import type { ContactAnswer, LineAnswer } from '@plain-trowel/core/control/host/answers';
import type { LineOrder } from '@plain-trowel/core/control/host/engineHost';
import { plotParts } from '@plain-trowel/core/garden/bind/plotParts';
import { sensesOf } from '@plain-trowel/core/garden/bind/sensesOf';
import type { Garden } from '@plain-trowel/core/garden/document/schema';
import { contactEventDraft, lineEventDrafts } from '@plain-trowel/core/records/lineEvents';
import { contactKey, lampKey, probeKey } from '@plain-trowel/core/sketch/settable';
import { readTalk, type Said } from '@plain-trowel/core/sketch/talk';
import type { BoardAtTheLine, RunningProgram, SourceUpdate } from './lineSource.ts';

const ASKED_BY_THE_PAGE: ReadonlySet<Said['kind']> = new Set([
  'line',
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
  private askedMs = -Infinity;
  private clockMs = -Infinity;
  /** So many of the next lines answer a person. */
  private asksShown = 0;

  /** @param say types a line at the board's console */
  constructor(
    public garden: Garden,
    private readonly boardId: string,
    private readonly simulated: boolean,
    private readonly say: (text: string) => void,
  ) {}

  /** Takes a line of the board. @param atMs the time of the line, ms since 1970 */
  hear(text: string, atMs: number): readonly SourceUpdate[] {
    const said = readTalk(text);
    const updates = said ? this.take(said, atMs) : [];
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

  private take(said: Said, atMs: number): readonly SourceUpdate[] {
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
      case 'event':
        return this.happen(said, atMs);
    }
  }

  /** Asks how the lines stand, now and then, and tells it the time. */
  look(nowMs: number): void {
    if (!this.board) return;
    if (nowMs - this.clockMs >= CLOCK_EVERY_MS) this.tellTime(nowMs);
    if (nowMs - this.askedMs < ASK_EVERY_MS) return;
    this.askedMs = nowMs;
    this.say('all');
  }

  order(order: LineOrder): void {
    const number = this.ids.indexOf(order.lineId) + 1;
    if (number === 0) return;
    this.say(order.kind === 'water' ? `give ${number} ${order.volumeMl}` : `${order.kind} ${number}`);
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
    this.tellTime(atMs);
    this.say('limits');
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
    const sun = contacts > 0 ? sensesOf(this.garden, () => null).sunTimes?.(nowMs) : null;
    if (sun) this.say(`sun ${sun.riseS % DAY_S} ${sun.setS % DAY_S}`);
  }

  private keepLimits(said: Said & { kind: 'limits' }): readonly SourceUpdate[] {
    const id = this.ids[said.line - 1];
    return id === undefined ? [] : this.keep(id, said.values);
  }

  private keep(key: string, values: Readonly<Record<string, string>>): readonly SourceUpdate[] {
    this.run({ limits: { ...this.board?.program.limits, [key]: values } });
    return [];
  }

  private stand(said: Said & { kind: 'line' }, atMs: number): readonly SourceUpdate[] {
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
        noRise: 0,
      },
    };
    return [this.told()];
  }

  private happen(said: Said & { kind: 'event' }, atMs: number): readonly SourceUpdate[] {
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
          ...(before ?? { mayStartAtMs: null, pulses: 0, isLocked: false, noRise: 0, givenMl: 0 }),
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

  private standContact(said: Said & { kind: 'contact' }, atMs: number): readonly SourceUpdate[] {
    const id = this.contactIds[said.contact - 1];
    if (id === undefined) return [];
    const before = this.contactAnswers[id];
    const { isOn, isResting, reason, todayS: dayS } = said;
    const isSame = before?.isOn === isOn && before.isResting === isResting;
    const sinceMs = isSame ? before.sinceMs : atMs;
    this.contactAnswers = { ...this.contactAnswers, [id]: { isOn, isResting, reason, sinceMs, dayS } };
    return [this.told()];
  }

  private switchContact(said: Said & { kind: 'contact-event' }, atMs: number): readonly SourceUpdate[] {
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

  private told(): SourceUpdate {
    return { kind: 'answers', answers: { lines: this.answers, contacts: this.contactAnswers } };
  }
}
