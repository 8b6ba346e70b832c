import { byId } from '../../quantity/byId.ts';
import type { Told } from '../../control/alerts.ts';
import type { EventDraft, GardenEvent } from '../../records/event.ts';
import { channelName } from './channels.ts';
import type { Garden } from '../document/schema.ts';

type Phase = Extract<GardenEvent, { kind: 'alert' }>['phase'];

/** What an alert is about, by the name that its person gave it. */
export function subjectOf(garden: Garden, of: Pick<Told, 'kind' | 'subjectId'>): string {
  const named = [...garden.plots, ...garden.boards, ...garden.reservoirs, ...garden.waterLines];
  const channel = byId(garden.channels, of.subjectId);
  return byId(named, of.subjectId)?.name ?? (channel ? channelName(garden, channel) : of.subjectId);
}

/** An alert as the log keeps it, beside the plot that it belongs to where there is one. */
export function alertEvent(
  garden: Garden,
  told: Pick<Told, 'kind' | 'subjectId'> & { readonly phase: Phase },
  atMs: number,
  simulated: boolean,
): EventDraft {
  const line = byId(garden.waterLines, told.subjectId);
  const channel = byId(garden.channels, told.subjectId);
  const probe = byId(garden.probes, channel?.probeId);
  const plotId = byId(garden.plots, told.subjectId)?.id ?? line?.plotId ?? probe?.plotId ?? null;
  return {
    kind: 'alert',
    atMs,
    plotId,
    boardId: line?.boardId ?? byId(garden.boards, told.subjectId)?.id ?? null,
    lineId: line?.id ?? null,
    channelId: channel?.id ?? null,
    simulated,
    alert: told.kind,
    phase: told.phase,
    subject: subjectOf(garden, told),
  };
}
