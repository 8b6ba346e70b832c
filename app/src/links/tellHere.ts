/** Alerts told by this browser: a notification of its own, and a tone. Which of them is kept with the browser, not with the garden. */
import { useSyncExternalStore } from 'react';
import type { EventDraft } from '@plain-trowel/core/records/event';
import { playTone } from '../ui/tone.ts';
import { alertWords } from '@plain-trowel/core/telling/alertWords';

export type Telling = { readonly notification: boolean; readonly sound: boolean };

const KEY = 'plain-trowel-alerts';
const SILENT: Telling = { notification: false, sound: false };
const listeners = new Set<() => void>();
let held: Telling | null = null;

function kept(): Telling {
  const words = new Set((localStorage.getItem(KEY) ?? '').split(' '));
  return { notification: words.has('notification'), sound: words.has('sound') };
}

const now = (): Telling => (held ??= typeof localStorage === 'undefined' ? SILENT : kept());

export function setTelling(next: Telling): void {
  held = next;
  localStorage.setItem(
    KEY,
    Object.entries(next)
      .flatMap(([word, on]) => (on ? word : []))
      .join(' '),
  );
  for (const listener of listeners) listener();
}

export const useTelling = (): Telling =>
  useSyncExternalStore((listener) => {
    listeners.add(listener);
    return () => listeners.delete(listener);
  }, now);

/** Whether this browser can show notifications, and whether the person has allowed it. */
export const notificationState = (): 'granted' | 'denied' | 'default' | 'none' =>
  typeof Notification === 'undefined' ? 'none' : Notification.permission;

/** Tells by what the person has chosen; "cleared" is told in writing only. */
export function tellHere(event: EventDraft): void {
  if (event.kind !== 'alert' || event.phase === 'cleared') return;
  tell(`${event.subject}: ${alertWords(event.alert)}`);
}

/** @returns what was done of what was chosen */
export function tell(text: string): { readonly notified: boolean; readonly sounded: boolean } {
  const { notification, sound } = now();
  if (sound) playTone(880);
  const notified = notification && notificationState() === 'granted';
  if (notified)
    try {
      new Notification('Plain Trowel', { body: text, tag: text });
    } catch {
      // Some phones only let a service worker notify; the alert stands on the sheet all the same.
      return { notified: false, sounded: sound };
    }
  return { notified, sounded: sound };
}
