/**
 * The boards of a garden as a mailbox tells of them: reports in, readings, events and how lines stand out. It is the same whether a browser or the gateway itself
 * watches the garden.
 */
import type { Answers } from '../control/host/answers.ts';
import type { Garden } from '../garden/document/schema.ts';
import type { Entry } from '../protocol/feed.ts';
import { FLAGS } from '../records/series.ts';
import { medianOf } from '../signal/noise.ts';
import { BoardTalk, type BoardAtTheLine, type BoardUpdate } from './boardTalk.ts';
import type { BoardReading } from '../live/reading.ts';

export type NetworkUpdate =
  | BoardUpdate
  | { readonly kind: 'readings'; readonly readings: readonly BoardReading[] }
  /** Such as were taken while nobody looked: for the log alone. */
  | { readonly kind: 'past'; readonly readings: readonly BoardReading[] };

export type NetworkNeeds = {
  readonly nowMs: () => number;
  /** Gives a board a line for its console. */
  readonly say: (boardId: string, text: string) => void;
  readonly emit: (update: NetworkUpdate) => void;
};

/** What is older when it is told belongs to the log alone: nothing of now is worked out from it, ms. */
const PAST_MS = 600_000;
/** A board may be late by two of its usual distances. */
const LATE = 3;
/** What a board kept back comes all at once: that is not its usual distance. */
const LEAST_GAP_MS = 10_000;
/** Reports that the usual distance is told from; and what it is while there was but one, as boards are asked. */
const BUNDLES = 8;
const ASKED_EVERY_MS = 10_000;

export class NetworkBoards {
  private readonly talks = new Map<string, BoardTalk>();
  /** How the lines of each board stand, and of how many boards that was told. */
  private readonly answers = new Map<string, Answers>();
  private toldOf = 0;
  /** When the latest reports of each board came. */
  private readonly times = new Map<string, readonly number[]>();
  /** Stand-ins among the boards. */
  private readonly standIns = new Set<string>();

  constructor(
    private garden: Garden,
    private readonly needs: NetworkNeeds,
  ) {}

  /** As soon as one of them is a stand-in: what is taken from here may be its. */
  get simulated(): boolean {
    return this.standIns.size > 0;
  }

  /** One of them has said that it runs a program of ours. */
  get decide(): boolean {
    return [...this.talks.values()].some(({ board }) => board !== null);
  }

  boardAt(boardId: string): BoardAtTheLine | null {
    return this.talks.get(boardId)?.board ?? null;
  }

  /** Boards that have said what they run, and are there. */
  here(): readonly BoardAtTheLine[] {
    return [...this.talks].flatMap(([id, { board }]) => (board && !this.isSilent(id) ? [board] : []));
  }

  /** When the newest report of a board came, ms since 1970; null before the first. */
  heardMs(boardId: string): number | null {
    return this.times.get(boardId)?.at(-1) ?? null;
  }

  setGarden(garden: Garden): void {
    this.garden = garden;
    for (const talk of this.talks.values()) talk.garden = garden;
  }

  /** @param store by which mailbox its numbers are: events are known by it wherever they are told again */
  take(entry: Entry, store: string): void {
    if (entry.simulated) this.standIns.add(entry.boardId);
    const readings = readingsOf(entry, this.bundleOf(entry));
    // By when it was taken, not by when it came: a board that was alone for a night tells it in the morning.
    const isPast = ({ atMs }: BoardReading) => this.needs.nowMs() - atMs > PAST_MS;
    const [past, now] = [readings.filter(isPast), readings.filter((one) => !isPast(one))];
    if (past.length > 0) this.needs.emit({ kind: 'past', readings: past });
    if (now.length > 0) this.needs.emit({ kind: 'readings', readings: now });
    const stem = [entry.boardId, entry.boot, entry.run, entry.seq].join(' ');
    for (const [at, { text, atMs }] of entry.said.entries())
      this.hear(entry.boardId, text, atMs, `${store.slice(0, 8)} ${stem} ${at}`);
  }

  /** Takes a line of a board. @param id by which an event in it is known; null: nobody tells it again */
  hear(boardId: string, text: string, atMs: number, id: string | null): void {
    for (const update of this.talkOf(boardId).hear(text, atMs, id)) {
      if (update.kind !== 'answers') this.needs.emit(update);
      else {
        this.answers.set(boardId, update.answers);
        this.tellAnswers();
      }
    }
  }

  talkOf(boardId: string): BoardTalk {
    const known = this.talks.get(boardId);
    if (known) return known;
    const say = (text: string) => this.needs.say(boardId, text);
    const talk = new BoardTalk(this.garden, boardId, this.standIns.has(boardId), say, false);
    this.talks.set(boardId, talk);
    return talk;
  }

  /** To be asked every few seconds: of a board that has fallen silent nobody knows how its lines stand. */
  look(): void {
    const heard = [...this.answers.keys()].filter((boardId) => !this.isSilent(boardId)).length;
    if (heard !== this.toldOf) this.tellAnswers();
  }

  private tellAnswers(): void {
    const heard = [...this.answers].filter(([boardId]) => !this.isSilent(boardId)).map(([, one]) => one);
    this.toldOf = heard.length;
    this.needs.emit({
      kind: 'answers',
      answers: {
        lines: Object.assign({}, ...heard.map(({ lines }) => lines)) as Answers['lines'],
        contacts: Object.assign({}, ...heard.map(({ contacts }) => contacts)) as Answers['contacts'],
      },
    });
  }

  private isSilent(boardId: string): boolean {
    const times = this.times.get(boardId) ?? [];
    return this.needs.nowMs() - (times.at(-1) ?? -Infinity) > LATE * Math.max(LEAST_GAP_MS, usualGap(times));
  }

  /** How long a board usually lets pass between two reports. */
  private bundleOf({ boardId, receivedMs }: Entry): number {
    const times = [...(this.times.get(boardId) ?? []), receivedMs].slice(-BUNDLES);
    this.times.set(boardId, times);
    return usualGap(times);
  }
}

function usualGap(times: readonly number[]): number {
  const gaps = times.slice(1).map((atMs, at) => atMs - (times[at] ?? atMs));
  return gaps.length === 0 ? ASKED_EVERY_MS : medianOf(gaps);
}

/** The readings of an entry, those of one moment together. */
function readingsOf({ boardId, seq, simulated, readings }: Entry, bundleMs: number): readonly BoardReading[] {
  const moments = new Map<number, { name: string; value: number }[]>();
  for (const { n, v, atMs } of readings) {
    const values = moments.get(atMs);
    if (values) values.push({ name: n, value: v });
    else moments.set(atMs, [{ name: n, value: v }]);
  }
  const flags = simulated ? FLAGS.simulated : 0;
  return [...moments]
    .sort(([a], [b]) => a - b)
    .map(([atMs, values]) => ({ boardId, seq, atMs, values, flags, bundleMs }));
}
