/**
 * Tells a person what boards report while nobody looks: every published garden whose boards report here is watched, its alerts are kept with the letters that tell them,
 * and once a day a note says how all of it stands.
 */
import { localTimeIn } from '@plain-trowel/core/quantity/localTime';
import { alertStatesSchema } from '@plain-trowel/core/protocol/telling';
import type { AlertStates } from '@plain-trowel/core/control/alerts';
import type { Entry } from '@plain-trowel/core/protocol/feed';
import { fullDay } from '@plain-trowel/core/quantity/timeText';
import { z } from '@plain-trowel/core/quantity/schema';
import { eventSchema, identified, type GardenEvent } from '@plain-trowel/core/records/event';
import { alertLetter, dailyNote, type AlertDraft, type Letter } from '@plain-trowel/core/telling/letters';
import type { Keys } from '../boards/keys.ts';
import type { PublishedGardens } from '../gardens/published.ts';
import { KeptTable } from '../mailbox/keptTable.ts';
import type { Mailbox } from '../mailbox/mailbox.ts';
import { GardenWatch } from './gardenWatch.ts';
import type { NewLetter, Outbox, Ready } from './outbox.ts';
import type { KeptWays } from './ways.ts';

/** So far back it is read what boards said before the gateway was started, entries. */
const LOOK_BACK = 5000;
/** What was told is handed on for so long to apps that may have missed it, and at most so many. */
const TOLD_MS = 60 * 86_400_000;
const MOST_TOLD = 500;

const noteSchema = z.strictObject({ day: z.string() });
const MINUTE_S = 60;
/** Boards report again within so long after a start, ms. */
const SETTLE_MS = 120_000;

export type Change =
  | { readonly kind: 'alerts'; readonly states: AlertStates }
  | { readonly kind: 'told'; readonly events: readonly GardenEvent[] };

export type TellerNeeds = {
  readonly mailbox: Mailbox;
  readonly gardens: PublishedGardens;
  readonly keys: Keys;
  readonly ways: KeptWays;
  readonly outbox: Outbox;
  readonly nowMs: () => number;
};

export class Teller {
  private readonly watches = new Map<string, GardenWatch>();
  private readonly states: KeptTable<AlertStates>;
  private readonly told: KeptTable<GardenEvent>;
  private readonly notes: KeptTable<z.infer<typeof noteSchema>>;
  private readonly keptStates = new Map<string, string>();
  private readonly listeners = new Set<(gardenId: string, change: Change) => void>();
  private readonly stopHearing: () => void;
  /** What has come due at a look, until it is kept with the states that it left. */
  private readonly due = new Map<
    string,
    { readonly events: readonly GardenEvent[]; readonly letters: readonly Ready[] }
  >();
  private readonly clocks = new Map<string, ReturnType<typeof localTimeIn>>();
  private readonly startedMs: number;
  private elsewhere: ReadonlySet<string> = new Set();
  private looking: Promise<void> | null = null;
  private keeping: Promise<void> = Promise.resolve();
  private lastMs = 0;

  constructor(private readonly needs: TellerNeeds) {
    const { store } = needs.mailbox;
    this.startedMs = needs.nowMs();
    this.states = new KeptTable(store, 'alerts', alertStatesSchema);
    this.told = new KeptTable(store, 'told', eventSchema);
    this.notes = new KeptTable(store, 'note', noteSchema);
    this.stopHearing = needs.mailbox.onEntry((gardenId, entry) => {
      this.watches.get(gardenId)?.take(entry, store.id);
    });
  }

  /** Gardens that another gateway watches. */
  setElsewhere(gardenIds: readonly string[]): void {
    this.elsewhere = new Set(gardenIds);
  }

  /** Called when alerts of a garden change, or one is told. @returns how to call it off */
  onChange(listener: (gardenId: string, change: Change) => void): () => void {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  }

  /** Gardens that are watched now. */
  get watched(): readonly string[] {
    return [...this.watches.keys()];
  }

  all(): readonly GardenWatch[] {
    return [...this.watches.values()];
  }

  /** Alerts of a garden as they stand; null for one that is not watched. */
  statesOf(gardenId: string): AlertStates | null {
    return this.watches.get(gardenId)?.states ?? null;
  }

  /** The newest reading of a channel, and whether it is a stand-in's; null where nobody watches, or none has come. */
  readingOf(gardenId: string, channelId: string): ReturnType<GardenWatch['readingOf']> {
    return this.watches.get(gardenId)?.readingOf(channelId) ?? null;
  }

  /** What was told lately, the oldest first. */
  toldOf(gardenId: string): readonly GardenEvent[] {
    return this.told
      .all(`${gardenId} `)
      .slice(-MOST_TOLD)
      .map(({ value }) => value);
  }

  /** One look at everything, each second; one that is still under way is not begun again. */
  step(): Promise<void> {
    this.looking ??= this.look().finally(() => {
      this.looking = null;
    });
    return this.looking;
  }

  private async look(): Promise<void> {
    const { gardens, nowMs, outbox } = this.needs;
    for (const { garden } of gardens.all()) {
      const watch = this.watchOf(garden.id);
      if (!watch) continue;
      if (watch.garden !== garden) watch.setGarden(garden);
      watch.expect(this.needs.keys.of(garden.id).map(({ boardId }) => boardId));
      watch.step();
      await this.keepStates(garden.id, watch);
      await this.writeNote(garden.id, watch);
    }
    outbox.look(nowMs());
  }

  /** A person has seen an alert, or wants it told again later. @returns false where none such stands */
  async seen(gardenId: string, key: string, untilMs: number | null): Promise<boolean> {
    const watch = this.watches.get(gardenId);
    if (!watch?.states[key]) return false;
    if (untilMs === null) watch.seen(key);
    else watch.putOff(key, untilMs);
    await this.keepStates(gardenId, watch);
    return true;
  }

  async tidy(nowMs: number): Promise<void> {
    for (const gardenId of new Set(this.told.all().map(({ name }) => name.split(' ')[0] ?? ''))) {
      const events = this.told.all(`${gardenId} `);
      for (const [at, { name, value }] of events.entries())
        if (at < events.length - MOST_TOLD || nowMs - value.atMs > TOLD_MS) await this.told.remove(name);
    }
    await this.needs.outbox.tidy(nowMs);
  }

  /** Done once nothing is being written any more. */
  async close(): Promise<void> {
    this.stopHearing();
    await this.looking?.catch(() => undefined);
    await this.keeping;
  }

  /** The watch of a garden; none where no board of it may report. */
  private watchOf(gardenId: string): GardenWatch | null {
    const { gardens, keys, nowMs } = this.needs;
    const known = this.watches.get(gardenId);
    const published = gardens.get(gardenId);
    if (!published || keys.of(gardenId).length === 0 || this.elsewhere.has(gardenId)) {
      this.watches.delete(gardenId);
      return null;
    }
    if (known) return known;
    const watch = new GardenWatch(published.garden, this.states.get(gardenId) ?? {}, nowMs, (alerts) =>
      this.tell(gardenId, watch, alerts),
    );
    for (const entry of this.before(gardenId)) watch.take(entry, this.needs.mailbox.store.id);
    watch.warm();
    this.watches.set(gardenId, watch);
    this.keptStates.set(gardenId, JSON.stringify(watch.states));
    return watch;
  }

  private before(gardenId: string): readonly Entry[] {
    const { mailbox } = this.needs;
    return mailbox.after(gardenId, Math.max(0, mailbox.newest(gardenId) - LOOK_BACK), LOOK_BACK);
  }

  private tell(gardenId: string, watch: GardenWatch, alerts: readonly AlertDraft[]): void {
    const { mailbox, ways, outbox, nowMs } = this.needs;
    const events = alerts.map((one) => {
      this.lastMs = Math.max(one.atMs, this.lastMs + 1);
      return identified(one, `${mailbox.store.id.slice(0, 8)} ${this.lastMs.toString(36)}`, 'page');
    });
    const { subject, text } = alertLetter(watch.garden, alerts, (plotId) => watch.viewOf(plotId));
    const letter: NewLetter = { gardenId, kind: 'alert', subject, text, facts: { alerts } };
    const before = this.due.get(gardenId) ?? { events: [], letters: [] };
    this.due.set(gardenId, {
      events: [...before.events, ...events],
      letters: [...before.letters, ...ways.open.map((way) => outbox.ready(way, letter, nowMs()))],
    });
  }

  /** Alerts, what was told of them and the letters go onto the disk together, or none of them does. */
  private keepStates(gardenId: string, watch: GardenWatch): Promise<void> {
    // One after the other: what is due is kept, and sent, once.
    const kept = this.keeping.then(() => this.keepNow(gardenId, watch));
    this.keeping = kept.catch(() => undefined);
    return kept;
  }

  private async keepNow(gardenId: string, watch: GardenWatch): Promise<void> {
    const { states } = watch;
    const text = JSON.stringify(states);
    const due = this.due.get(gardenId) ?? { events: [], letters: [] };
    if (due.events.length === 0 && text === this.keptStates.get(gardenId)) return;
    const { mailbox, outbox } = this.needs;
    await mailbox.store.commits.do(() => {
      this.states.putNow(gardenId, states);
      for (const event of due.events) this.told.putNow(`${gardenId} ${event.id}`, event);
      outbox.putNow(due.letters);
    });
    const since = this.due.get(gardenId);
    if (since)
      this.due.set(gardenId, {
        events: since.events.slice(due.events.length),
        letters: since.letters.slice(due.letters.length),
      });
    outbox.taken(due.letters);
    this.keptStates.set(gardenId, text);
    this.say(gardenId, { kind: 'alerts', states });
    if (due.events.length > 0) this.say(gardenId, { kind: 'told', events: due.events });
  }

  private say(gardenId: string, change: Change): void {
    for (const listener of this.listeners) listener(gardenId, change);
  }

  /** Once a day, at its minute or, where the gateway was off then, once boards have had time to report again. */
  private async writeNote(gardenId: string, watch: GardenWatch): Promise<void> {
    const { ways, outbox, mailbox, nowMs } = this.needs;
    const { noteAtMinute } = ways.now;
    if (noteAtMinute === null || ways.open.length === 0) return;
    const atMs = nowMs();
    const { timeZone } = watch.garden;
    const day = fullDay(atMs, timeZone);
    const last = this.notes.get(gardenId)?.day ?? null;
    const minute = Math.floor(this.clockOf(timeZone)(atMs).daySecond / MINUTE_S);
    const isOnTime = minute === noteAtMinute;
    if (last === day || minute < noteAtMinute) return;
    if (!isOnTime && atMs - this.startedMs < SETTLE_MS) return;
    // The first one was asked for today, after its minute: it begins tomorrow.
    const isWritten = isOnTime || last !== null;
    const { subject, text } = this.noteOf(gardenId, watch, atMs);
    const letter: NewLetter = { gardenId, kind: 'note', subject, text, facts: {} };
    const letters = isWritten ? ways.open.map((way) => outbox.ready(way, letter, atMs)) : [];
    await mailbox.store.commits.do(() => {
      this.notes.putNow(gardenId, { day });
      outbox.putNow(letters);
    });
    outbox.taken(letters);
  }

  private noteOf(gardenId: string, watch: GardenWatch, atMs: number): Letter {
    const { keys, mailbox, outbox } = this.needs;
    const boards = keys.of(gardenId).map(({ boardId }) => ({
      boardId,
      hasReported: mailbox.hasHeard(gardenId, boardId),
    }));
    return dailyNote(
      watch.known(boards, outbox.unsent(gardenId, atMs)),
      (lineId) => watch.given(lineId),
      watch.simulated,
    );
  }

  private clockOf(timeZone: string): ReturnType<typeof localTimeIn> {
    const known = this.clocks.get(timeZone);
    if (known) return known;
    const made = localTimeIn(timeZone);
    this.clocks.set(timeZone, made);
    return made;
  }
}
