import type { Garden } from '@plain-trowel/core/garden/document/schema';
import { setWaterLine } from '@plain-trowel/core/garden/edits/plots';
import { byId } from '@plain-trowel/core/quantity/byId';
import { isoOf } from '@plain-trowel/core/quantity/moment';
import type { CheckStep } from '@plain-trowel/core/sketch/checklist';
import { useGarden } from '../../../data/gardenContext.ts';
import { useKeptTicks } from '../../../ui/useKeptTicks.ts';
import { stepText } from '../../../words/checklistText.ts';

/** What was ticked, by the id of the step and when, ms since 1970; kept with the browser and told to the log. */
export function useChecks(boardId: string, frameName: string) {
  const { garden, commit } = useGarden();
  const key = `plain-trowel bench check ${garden.id} ${boardId} ${frameName}`;
  const { ticks, set } = useKeptTicks(key);
  const tick = (step: CheckStep, isSeenByBoard: boolean) => {
    const atMs = Date.now();
    set(step.id, atMs);
    const board = byId(garden.boards, boardId)?.name ?? 'Board';
    const text = `Bench check of ${board}: ${stepText(step).title}${isSeenByBoard ? ' (seen by the page)' : ''}`;
    void commit('the bench check', (now) => ({
      garden: firstHourSeen(now, step, atMs),
      events: [{ kind: 'note', atMs, plotId: null, boardId, text: text.slice(0, 400), simulated: false }],
    }));
  };
  const untick = (step: CheckStep) => set(step.id, null);
  return { ticks, tick, untick };
}

/** What the first hour of a line asks for and the bench check has seen. */
function firstHourSeen(garden: Garden, step: CheckStep, atMs: number): Garden {
  const field = step.kind === 'probe-out' ? 'probeOutAt' : step.kind === 'tank-low' ? 'tankLowAt' : null;
  if (!field || !('lineId' in step)) return garden;
  const line = byId(garden.waterLines, step.lineId);
  if (!line || line.firstHour[field] !== null) return garden;
  return setWaterLine(garden, line.id, { firstHour: { ...line.firstHour, [field]: isoOf(atMs) } });
}
