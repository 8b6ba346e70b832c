/**
 * One board's engine at work: switched on, asked again and again, given new settings, switched off and on with what it keeps. Stand-in boards, the page's own
 * engines and the replay of a day all run this; they differ in where readings come from and in what they do with the answer.
 *
 * A pure reducer over plain data, so that a host can be stored and taken up again. Times are ms since 1970 out here and seconds since boot in the engine.
 */
import { givenMl } from '../contract/dose.ts';
import { bootContacts, rememberedContacts, stepContacts } from '../contacts/contacts.ts';
import type { ContactEvent, ContactsState, RememberedContact } from '../contacts/contract.ts';
import { NOTHING_KEPT } from '../engine/border.ts';
import { bootEngine, rememberedOf, stepEngine } from '../engine/engine.ts';
import type { Reason } from '../contract/reasons.ts';
import type { EngineEvent, EngineInput, EngineState, Order, RememberedLine } from '../contract/types.ts';
import type { BoardEngine } from './boardEngine.ts';
import { contactsInput, engineInput, type Senses } from './senses.ts';
import { skipping, skipsAfter, type Skips } from './skips.ts';

/** What a board keeps through a reboot, by the id of the line. */
export type HostMemory = Readonly<Record<string, RememberedLine>>;

/** The same of its contacts: seconds on by their age in hours. */
export type ContactMemory = Readonly<Record<string, RememberedContact>>;

export type Hosted = {
  readonly bootMs: number;
  readonly settings: BoardEngine;
  readonly state: EngineState;
  readonly memory: HostMemory;
  readonly contacts: ContactsState;
  readonly contactMemory: ContactMemory;
  /** Lines that a person has told to skip; absent: none ever. */
  readonly skips?: Skips;
  /** Local time at the last look; null: unknown. */
  readonly clock: EngineInput['clock'];
  /** Events told since the boot. */
  readonly told: number;
  /** When the engine wants to be called although nothing is read, ms since 1970; infinite when only a reading can change anything. */
  readonly callMs: number;
};

/** An order by hand, to a line by its id. */
export type LineOrder = { readonly lineId: string } & (
  | { readonly kind: 'water'; readonly volumeMl: number }
  | { readonly kind: 'stop' | 'unlock' }
  /** From now on it waters nothing by itself for so long; 0: it does again. */
  | { readonly kind: 'skip'; readonly forS: number }
);

/** `seq` counts the events of a board since it was switched on; with the boot they have a name that no other event has. */
export type HostEvent = EngineEvent & {
  readonly boardId: string;
  readonly lineId: string;
  readonly atMs: number;
  readonly bootMs: number;
  readonly seq: number;
};

/** What a board keeps of lines and contacts. */
export type Kept = Partial<Pick<Hosted, 'memory' | 'contactMemory' | 'skips'>>;

/** Named by the contact and the moment: it switches once at a time. */
export type HostContactEvent = ContactEvent & {
  readonly boardId: string;
  readonly contactId: string;
  readonly atMs: number;
  readonly bootMs: number;
};

/** A board just switched on: every output off, with what it kept from before. @param atMs now; later than `bootMs` when only its settings are new */
export function switchOn(
  settings: BoardEngine,
  { memory = {}, contactMemory = {}, skips = {} }: Kept,
  bootMs: number,
  atMs = bootMs,
): Hosted {
  const nowS = Math.floor((atMs - bootMs) / 1000);
  const remembered = settings.lineIds.map((id) => memory[id] ?? NOTHING_KEPT);
  const state = bootEngine(settings.config, remembered, nowS);
  const contacts = bootContacts(
    settings.contacts,
    settings.contactIds.map((id) => contactMemory[id] ?? []),
    nowS,
  );
  return {
    bootMs,
    settings,
    state,
    memory,
    contacts,
    contactMemory,
    skips,
    clock: null,
    told: 0,
    callMs: Infinity,
  };
}

/** One look at the readings: what runs from now on, and what happened. Orders for lines of other boards are passed over. */
export function stepHost(
  before: Hosted,
  settings: BoardEngine,
  senses: Senses,
  nowMs: number,
  orders: readonly LineOrder[] = [],
): {
  readonly hosted: Hosted;
  readonly events: readonly HostEvent[];
  readonly contactEvents: readonly HostContactEvent[];
} {
  const cut = whyBeginAgain(before, settings, nowMs);
  const rebooted = cut === null ? before : beginAgain(before, settings, nowMs);
  const input = engineInput(settings, senses, nowMs, rebooted.bootMs, ordersOn(settings, orders));
  const skips = skipsAfter(rebooted.skips ?? {}, skipsIn(settings, orders), nowMs);
  const step = stepEngine(rebooted.state, input, skipping(settings.config, settings.lineIds, skips));
  const held = stepContacts(
    rebooted.contacts,
    contactsInput(settings, senses, nowMs, rebooted.bootMs),
    step.state.sensors,
    settings.config,
    settings.contacts,
  );
  const calls = [step.callAgainAtS, held.callAgainAtS].filter((one) => one !== null);
  // When a skip is over the engine is asked again.
  const endsMs = Object.values(skips);
  const seen: Seen[] = step.events.flatMap((event) => {
    const lineId = settings.lineIds[event.line];
    return lineId === undefined ? [] : [{ ...event, lineId }];
  });
  const { bootMs } = rebooted;
  const all = [...(cut === null ? [] : cutShort(before, nowMs, cut)), ...seen];
  return {
    hosted: {
      bootMs,
      settings,
      state: step.state,
      memory: step.write ? { ...before.memory, ...memoryOf(settings, step.state) } : before.memory,
      told: rebooted.told + all.length,
      contacts: held.state,
      clock: input.clock,
      skips,
      contactMemory: held.write
        ? { ...before.contactMemory, ...contactMemoryOf(settings, held.state) }
        : before.contactMemory,
      callMs: Math.min(Infinity, ...calls.map((one) => bootMs + one * 1000), ...endsMs),
    },
    contactEvents: [...(cut === null ? [] : contactsCutShort(before, nowMs, cut)), ...held.events].flatMap(
      (event) => {
        const contactId = settings.contactIds[event.contact];
        return contactId === undefined
          ? []
          : [{ ...event, contactId, boardId: settings.boardId, atMs: nowMs, bootMs }];
      },
    ),
    events: all.map((event, at) => ({
      ...event,
      boardId: settings.boardId,
      atMs: nowMs,
      bootMs,
      seq: rebooted.told + at,
    })),
  };
}

type Seen = EngineEvent & { readonly lineId: string };

/** Since when a line's output is on, ms since 1970; null while it is off. */
export function runningSinceMs({ settings, state, bootMs }: Hosted, lineId: string): number | null {
  const run = state.lines[settings.lineIds.indexOf(lineId)]?.run;
  return run ? bootMs + run.sinceS * 1000 : null;
}

/** Why the board must begin again as after an upload; null when its state still fits. */
function whyBeginAgain(
  { settings: old, bootMs }: Hosted,
  settings: BoardEngine,
  nowMs: number,
): 'settings-changed' | 'clock-went-back' | null {
  if (nowMs < bootMs) return 'clock-went-back';
  return old !== settings && placesOf(old) !== placesOf(settings) ? 'settings-changed' : null;
}

/** With other places the seconds go on; a clock set to before the boot counts from now. */
const beginAgain = (kept: Hosted, settings: BoardEngine, nowMs: number): Hosted => ({
  ...switchOn(settings, kept, Math.min(kept.bootMs, nowMs), nowMs),
  told: nowMs < kept.bootMs ? 0 : kept.told,
});

/** What the places of the settings stand for. When that changes, the state fits no longer, and the board begins again as after an upload. */
const placesOf = ({ lineIds, sensors, tankIds, contactIds, contacts, config }: BoardEngine): string =>
  JSON.stringify([
    lineIds,
    contactIds,
    contacts.map((one) => [one.sensor, one.rule.kind]),
    sensors.map(({ by, members }) => [by, members.map((one) => one.channelId)]),
    tankIds,
    config.lines.map((one) => one.sensor),
  ]);

const ordersOn = (settings: BoardEngine, orders: readonly LineOrder[]): Order[] =>
  orders.flatMap(({ lineId, ...order }): Order[] => {
    const line = settings.lineIds.indexOf(lineId);
    return line < 0 || order.kind === 'skip' ? [] : [{ ...order, line }];
  });

const skipsIn = (settings: BoardEngine, orders: readonly LineOrder[]) =>
  orders.flatMap((one) => (one.kind === 'skip' && settings.lineIds.includes(one.lineId) ? [one] : []));

const memoryOf = (settings: BoardEngine, state: EngineState): HostMemory =>
  Object.fromEntries(
    rememberedOf(state, settings.config).map((one, at) => [settings.lineIds[at] ?? '', one]),
  );

const contactMemoryOf = (settings: BoardEngine, state: ContactsState): ContactMemory =>
  Object.fromEntries(rememberedContacts(state).map((one, at) => [settings.contactIds[at] ?? '', one]));

/** What ran is off, as with any upload; it gave what the old settings make of its time. */
function cutShort({ state, settings, bootMs }: Hosted, nowMs: number, reason: Reason): Seen[] {
  const nowS = Math.max(state.nowS, Math.floor((nowMs - bootMs) / 1000));
  return state.lines.flatMap((line, at): Seen[] => {
    const config = settings.config.lines[at];
    const lineId = settings.lineIds[at];
    if (!line.run || !config || lineId === undefined) return [];
    const ranS = nowS - line.run.sinceS;
    return [
      {
        kind: 'stopped',
        line: at,
        lineId,
        atS: nowS,
        reason,
        ranS,
        volumeMl: givenMl(config, ranS),
      },
    ];
  });
}

/** Contacts that were on are at rest again. */
function contactsCutShort({ contacts, bootMs }: Hosted, nowMs: number, reason: Reason): ContactEvent[] {
  const atS = Math.max(contacts.nowS, Math.floor((nowMs - bootMs) / 1000));
  return contacts.contacts.flatMap(({ isOn, isResting, sinceS }, contact) =>
    isOn && !isResting ? [{ kind: 'off', contact, atS, reason, onS: atS - sinceS }] : [],
  );
}
