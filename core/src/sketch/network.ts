/** How a board reports, and what it is drawn as. */
import { linkOf } from '../garden/bind/linkOf.ts';
import type { Board, Garden } from '../garden/document/schema.ts';
import { catalogueOf } from '../garden/edits/plan.ts';
import type { SketchNetwork } from './plan.ts';

/** Reports are wanted so often until the gateway asks for another pace, s. */
const REPORT_EVERY_S = 10;

/** What stands for the board in the wiring, and the facts of it. */
export function drawnAs(garden: Garden, { id }: Board) {
  const part = garden.wiring.parts.find(({ stands }) => stands?.list === 'boards' && stands.id === id);
  const entry = part && catalogueOf(garden).get(part.entryId);
  return { name: entry?.name ?? null, facts: { ...entry?.facts, ...part?.settings } };
}

const OVER: Readonly<Record<string, SketchNetwork['over']>> = { 'link-http': 'http', 'link-mqtt': 'mqtt' };

/** Reports over HTTP or MQTT, where the plan says so and the board that is drawn has a radio. */
export function networkOf(garden: Garden, board: Board): SketchNetwork | null {
  const over = OVER[linkOf(garden) ?? ''];
  const hasRadio = drawnAs(garden, board).facts.hasRadio === 1;
  return over && hasRadio ? { over, gardenId: garden.id, boardId: board.id, everyS: REPORT_EVERY_S } : null;
}
