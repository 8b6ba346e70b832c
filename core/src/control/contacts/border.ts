/** What cannot be is cut off before a contact is decided about, as at the engine's border. */
import { isNumber, isSound, isSoundClock, isWhole, soundAround } from '../engine/border.ts';
import { remembered } from '../../quantity/remembered.ts';
import type { ContactConfig, ContactsInput, RememberedContact } from './contract.ts';

/** What contacts are told, without what cannot be: such a value is not known. */
export function soundInput({ nowS, clock, batteryMv, around, sun }: ContactsInput): ContactsInput {
  const isSun = sun !== null && isWhole(sun.riseS, 0, 86_399) && isWhole(sun.setS, 0, 86_399);
  return {
    nowS,
    clock: clock && isSoundClock(clock) ? clock : null,
    batteryMv: isNumber(batteryMv) ? batteryMv : null,
    around: around.map(soundAround),
    sun: isSun ? sun : null,
  };
}

/** By contact: whether its settings can be gone by. Worked out once for settings that stay the same. */
export const soundContacts: (contacts: readonly ContactConfig[]) => readonly boolean[] = remembered(
  (contacts) => contacts.map((one) => isSound(one, false)),
);

const HOURS = 25;
const MOST_KEPT_S = 90_000;

/** Seconds by age as a board kept them; what cannot be is taken for a day that has had all it may. */
export const soundHours = (kept: unknown, { guards }: ContactConfig): RememberedContact => {
  if (kept === undefined) return [];
  const whole = Array.isArray(kept) && kept.length <= HOURS ? kept.filter(isSecond) : null;
  return whole?.length === (kept as readonly unknown[]).length ? whole : [Math.max(0, guards.dayMaxS)];
};

const isSecond = (one: unknown): one is number => typeof one === 'number' && isWhole(one, 0, MOST_KEPT_S);
