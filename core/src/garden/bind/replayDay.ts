/**
 * A water line's program over readings that are already there, such as yesterday's: when it would have run, and what would have held it.
 *
 * The readings stay what they were: water that the program would have given does not show in them. So this answers "when does it act, and what stops it",
 * not "how wet does it get"; that is for a rehearsal. For the same reason no dose can be seen to arrive, so the lock after doses that raise nothing is left
 * out here.
 */
import { byId } from '../../quantity/byId.ts';
import type { Reason } from '../../control/contract/reasons.ts';
import { channelsOf, type BoardEngine } from '../../control/host/boardEngine.ts';
import { stepHost, switchOn, type HostEvent } from '../../control/host/engineHost.ts';
import { engineOf } from './engineOf.ts';
import type { Garden } from '../document/schema.ts';
import { sensesOf } from './sensesOf.ts';

export type PastReading = { readonly timeMs: number; readonly raw: number };

/** A stretch of the day in which the line ran or was held for one reason. */
export type Stretch = {
  readonly fromMs: number;
  readonly toMs: number;
  readonly isOn: boolean;
  readonly reason: Reason;
};

export type DayReplay = {
  readonly stretches: readonly Stretch[];
  readonly runs: number;
  readonly volumeMl: number;
  readonly readings: number;
};

/** Channels whose past a replay of a line needs. */
export function channelsOfReplay(garden: Garden, lineId: string): readonly string[] {
  const line = byId(garden.waterLines, lineId);
  return line ? channelsOf(engineOf(garden, line.boardId)) : [];
}

/**
 * @param past readings by channel, sorted by time; they should begin a minimum interval before `fromMs`, or the boot hold falls into the day
 * @param fromMs begin and end of the day, ms since 1970, whole seconds
 */
export function replayDay(
  garden: Garden,
  lineId: string,
  past: ReadonlyMap<string, readonly PastReading[]>,
  fromMs: number,
  toMs: number,
): DayReplay | null {
  const line = byId(garden.waterLines, lineId);
  if (!line) return null;
  // As if it had been switched on, whether it is or not: that is what the person wants to see before doing so.
  const armed: Garden = {
    ...garden,
    waterLines: garden.waterLines.map((one) => (one.id === lineId ? { ...one, automatic: true } : one)),
  };
  const engine = withoutLock(engineOf(armed, line.boardId));
  const at = engine.lineIds.indexOf(lineId);
  const bootMs = fromMs - 1000 * Math.max(...engine.config.lines.map((one) => one.guards.minIntervalS), 0);
  const feed = new Feed(past);
  const senses = sensesOf(armed, (id) => feed.newest(id));
  let hosted = switchOn(engine, {}, bootMs);
  const stretches: Stretch[] = [];
  const events: HostEvent[] = [];
  for (let nowMs = bootMs; nowMs <= toMs;) {
    feed.goTo(nowMs);
    const step = stepHost(hosted, engine, senses, nowMs);
    hosted = step.hosted;
    const now = hosted.state.lines[at];
    if (now && nowMs >= fromMs) {
      events.push(...step.events.filter((event) => event.lineId === lineId));
      extend(stretches, nowMs, now.run !== null, now.run?.reason ?? now.reason);
    }
    nowMs = Math.min(
      Math.max(nowMs + 1000, Math.min(hosted.callMs, feed.nextMs(nowMs))),
      nowMs === toMs ? Infinity : toMs,
    );
  }
  const stops = events.filter((event) => event.kind === 'stopped');
  return {
    stretches: stretches.map((one) => ({ ...one, toMs: Math.min(one.toMs, toMs) })),
    runs: events.filter((event) => event.kind === 'started').length,
    volumeMl: stops.reduce((sum, event) => sum + event.volumeMl, 0),
    readings: readingsOf(engine, at, past, fromMs, toMs),
  };
}

/** A day of the past locks nothing, and shows what settings would do that stand against each other. */
const withoutLock = (engine: BoardEngine): BoardEngine => ({
  ...engine,
  config: {
    ...engine.config,
    lines: engine.config.lines.map((one) => ({
      ...one,
      contradicts: false,
      guards: { ...one.guards, noRiseTimes: NEVER },
    })),
  },
});

const NEVER = 1_000_000_000;

/** Readings of the probe that decides, within the day. */
function readingsOf(
  engine: BoardEngine,
  at: number,
  past: ReadonlyMap<string, readonly PastReading[]>,
  fromMs: number,
  toMs: number,
): number {
  const sensor = engine.config.lines[at]?.sensor ?? null;
  const members = sensor === null ? [] : (engine.sensors[sensor]?.members ?? []);
  const all = members.flatMap(({ channelId }) => past.get(channelId) ?? []);
  return all.filter((one) => one.timeMs >= fromMs && one.timeMs <= toMs).length;
}

function extend(stretches: Stretch[], nowMs: number, isOn: boolean, reason: Reason): void {
  const last = stretches.at(-1);
  if (last) stretches[stretches.length - 1] = { ...last, toMs: nowMs };
  if (last?.isOn !== isOn || last.reason !== reason)
    stretches.push({ fromMs: nowMs, toMs: nowMs, isOn, reason });
}

/** Readings of many channels, handed out as time goes on. */
class Feed {
  private readonly places = new Map<string, number>();
  constructor(private readonly past: ReadonlyMap<string, readonly PastReading[]>) {}
  goTo(nowMs: number): void {
    for (const [id, readings] of this.past) {
      let place = this.places.get(id) ?? -1;
      while ((readings[place + 1]?.timeMs ?? Infinity) <= nowMs) place += 1;
      this.places.set(id, place);
    }
  }
  newest(id: string): PastReading | null {
    return this.past.get(id)?.[this.places.get(id) ?? -1] ?? null;
  }
  /** When the next reading comes, rounded up to the engine's whole seconds. */
  nextMs(nowMs: number): number {
    let next = Infinity;
    for (const [id, readings] of this.past) {
      const one = readings[(this.places.get(id) ?? -1) + 1];
      if (one && one.timeMs < next) next = one.timeMs;
    }
    return next === Infinity ? next : nowMs + 1000 * Math.ceil((next - nowMs) / 1000);
  }
}
