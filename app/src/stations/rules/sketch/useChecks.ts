import { useState } from 'react';
import type { Garden } from '@plain-trowel/core/garden/document/schema';
import { setWaterLine } from '@plain-trowel/core/garden/edits/plots';
import { byId } from '@plain-trowel/core/quantity/byId';
import { isoOf } from '@plain-trowel/core/quantity/moment';
import type { CheckStep } from '@plain-trowel/core/sketch/checklist';
import { z } from '@plain-trowel/core/quantity/schema';
import { useGarden } from '../../../data/gardenContext.ts';
import { stepText } from '../../../words/checklistText.ts';

const ticksSchema = z.record(z.string().max(200), z.number());
type Ticks = Readonly<Record<string, number>>;

/** What was ticked, by the id of the step and when, ms since 1970; kept with the browser and told to the log. */
export function useChecks(boardId: string, frameName: string) {
  const { garden, commit } = useGarden();
  const key = `plain-trowel bench check ${garden.id} ${boardId} ${frameName}`;
  const [ticks, setTicks] = useState<Ticks>(() => readTicks(key));
  const keep = (next: Ticks) => {
    setTicks(next);
    try {
      localStorage.setItem(key, JSON.stringify(next));
    } catch {
      // A browser that keeps nothing still shows them until the page is closed.
    }
  };
  const tick = (step: CheckStep, isSeenByBoard: boolean) => {
    const atMs = Date.now();
    keep({ ...ticks, [step.id]: atMs });
    const board = byId(garden.boards, boardId)?.name ?? 'Board';
    const text = `Bench check of ${board}: ${stepText(step).title}${isSeenByBoard ? ' (seen by the page)' : ''}`;
    void commit('the bench check', (now) => ({
      garden: firstHourSeen(now, step, atMs),
      events: [{ kind: 'note', atMs, plotId: null, boardId, text: text.slice(0, 400), simulated: false }],
    }));
  };
  const untick = (step: CheckStep) => {
    const { [step.id]: _, ...others } = ticks;
    keep(others);
  };
  return { ticks, tick, untick };
}

function readTicks(key: string): Ticks {
  try {
    return ticksSchema.catch({}).parse(JSON.parse(localStorage.getItem(key) ?? '{}'));
  } catch {
    return {};
  }
}

/** What the first hour of a line asks for and the bench check has seen. */
function firstHourSeen(garden: Garden, step: CheckStep, atMs: number): Garden {
  const field = step.kind === 'probe-out' ? 'probeOutAt' : step.kind === 'tank-low' ? 'tankLowAt' : null;
  if (!field || !('lineId' in step)) return garden;
  const line = byId(garden.waterLines, step.lineId);
  if (!line || line.firstHour[field] !== null) return garden;
  return setWaterLine(garden, line.id, { firstHour: { ...line.firstHour, [field]: isoOf(atMs) } });
}
