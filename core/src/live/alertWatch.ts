import {
  acknowledge,
  snooze,
  stepAlerts,
  tellsAtMs,
  type AlertKind,
  type AlertRule,
  type AlertStates,
} from '../control/alerts.ts';
import { alertEvent, subjectOf } from '../garden/bind/alertEvent.ts';
import { localTimeIn } from '../quantity/localTime.ts';
import { type Heard } from '../garden/bind/plotFacts.ts';
import { watchedOf } from '../garden/bind/watched.ts';
import type { Garden } from '../garden/document/schema.ts';
import type { EventDraft } from '../records/event.ts';

/** An alert that is raised, for the screen. */
export type ActiveAlert = {
  readonly key: string;
  readonly kind: AlertKind;
  readonly subject: string;
  readonly raisedMs: number;
  readonly acknowledged: boolean;
  readonly snoozedUntilMs: number | null;
};

/** An alert that has begun and was not told yet. */
export type PendingAlert = {
  readonly key: string;
  readonly kind: AlertKind;
  readonly subject: string;
  readonly sinceMs: number;
  /** When its hold-off is over. */
  readonly tellsMs: number;
  /** Hours in which it is not told even then. */
  readonly quiet: AlertRule['quiet'];
};

/** A garden's alerts as it is being watched: what is raised, and what is to be written down. */
export class AlertWatch {
  private zone: { name: string; clock: ReturnType<typeof localTimeIn> } | null = null;

  /** @param states what was raised when the garden was left */
  constructor(private states: AlertStates) {}

  /** Looks once; gives what is to be told. */
  step(garden: Garden, heard: Heard, simulated: boolean): EventDraft[] {
    if (this.zone?.name !== garden.timeZone)
      this.zone = { name: garden.timeZone, clock: localTimeIn(garden.timeZone) };
    const minute = Math.floor(this.zone.clock(heard.nowMs).daySecond / 60);
    const step = stepAlerts(this.states, watchedOf(garden, heard), garden.alerts, {
      ms: heard.nowMs,
      minute,
    });
    this.states = step.states;
    return step.told.map((told) => alertEvent(garden, told, heard.nowMs, simulated));
  }

  acknowledge(key: string): void {
    this.states = acknowledge(this.states, key);
  }

  snooze(key: string, untilMs: number): void {
    this.states = snooze(this.states, key, untilMs);
  }

  /** What a person did about an alert, for the log; null for one that is not raised. */
  eventOf(
    garden: Garden,
    key: string,
    phase: 'acknowledged' | 'snoozed',
    atMs: number,
    simulated: boolean,
  ): EventDraft | null {
    const named = this.states[key] && nameOf(garden, key);
    return named ? alertEvent(garden, { ...named, phase }, atMs, simulated) : null;
  }

  /** Somebody else judges, and this is how alerts stand by them. */
  adopt(states: AlertStates): void {
    this.states = states;
  }

  memory(): AlertStates {
    return this.states;
  }

  /** What has begun and is not told yet: still within its hold-off, or in quiet hours. The next first. */
  pending(garden: Garden): readonly PendingAlert[] {
    return Object.entries(this.states)
      .flatMap(([key, state]): PendingAlert[] => {
        const named = nameOf(garden, key);
        const rule = named && garden.alerts.find((one) => one.kind === named.kind);
        const tellsMs = rule ? tellsAtMs(state, rule) : null;
        if (!named || !rule || tellsMs === null) return [];
        const { sinceMs } = state;
        return [
          { key, kind: named.kind, subject: subjectOf(garden, named), sinceMs, tellsMs, quiet: rule.quiet },
        ];
      })
      .sort((a, b) => a.tellsMs - b.tellsMs);
  }

  /** What is raised now, the newest first. */
  active(garden: Garden): readonly ActiveAlert[] {
    return Object.entries(this.states)
      .flatMap(([key, state]): ActiveAlert[] => {
        const named = nameOf(garden, key);
        if (state.raisedMs === null || !named) return [];
        return [
          {
            key,
            kind: named.kind,
            subject: subjectOf(garden, named),
            raisedMs: state.raisedMs,
            acknowledged: state.acknowledged,
            snoozedUntilMs: state.snoozedUntilMs,
          },
        ];
      })
      .sort((a, b) => b.raisedMs - a.raisedMs);
  }
}

/** Kind and subject of an alert's key, such as "cold air lemon". */
function nameOf(
  garden: Garden,
  key: string,
): { readonly kind: AlertKind; readonly subjectId: string } | null {
  const kind = garden.alerts.find((rule) => key.startsWith(`${rule.kind} `))?.kind;
  return kind ? { kind, subjectId: key.split(' ').at(-1) ?? '' } : null;
}
