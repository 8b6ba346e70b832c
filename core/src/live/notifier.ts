import type { EventDraft } from '../records/event.ts';

/** Stands between "an alert is due" and how it is sent: into the log and onto the screen now, by mail or message later. */
export type Notifier = { readonly tell: (alerts: readonly EventDraft[]) => void };
