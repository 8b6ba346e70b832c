/** Small displays on a board's I2C: whose state they tell, and what stands for the places of their texts. */
import type { Sense } from '../control/conditions/conditions.ts';
import type { BoardEngine } from '../control/host/boardEngine.ts';
import type { Channel, Garden } from '../garden/document/schema.ts';
import { ambientOf } from '../garden/bind/ambient.ts';
import { plotParts } from '../garden/bind/plotParts.ts';
import { NOTHING_CHOSEN } from '../garden/document/waterSchema.ts';
import { bandWord, BAND_NAMES } from '../quantity/bands.ts';
import { fact, type Circuit, type Placed } from '../wiring/circuit.ts';
import { unitOf } from './heading.ts';
import { addressOf, pinOf } from './i2c.ts';
import type { SketchDisplay, SketchInput } from './plan.ts';

/** What is asked of the plan while it is made. */
type Asked = {
  readonly garden: Garden;
  readonly boardId: string;
  readonly engine: BoardEngine;
  readonly inputs: readonly SketchInput[];
  /** Place of a channel in the senses; null where it is not read here, or means nothing. */
  senseIfRead(sense: Sense, channel: Channel): number | null;
};

/** Null where it is not drawn up to the pins of its board, or has no address. @param watch place of its plot in the watches */
export function displayOf(
  planner: Asked,
  circuit: Circuit,
  placed: Placed,
  plotId: string,
  watch: number,
): SketchDisplay | null {
  const { garden, boardId, engine } = planner;
  const [sda, scl] = [pinOf(circuit, placed, 'sda'), pinOf(circuit, placed, 'scl')];
  const address = addressOf(placed);
  const parts = plotParts(garden, plotId);
  if (!sda || !scl || address === null || !parts) return null;
  const { plot, fit, channel } = parts;
  const line = garden.waterLines.find((one) => one.plotId === plotId);
  const chosen = line?.around ?? NOTHING_CHOSEN;
  const sense = (kind: 'soilTenthsC' | 'airTenthsC' | 'battery'): number | null => {
    const found = ambientOf(garden, { boardId, plotId, chosen }, kind);
    return found && planner.senseIfRead(kind, found);
  };
  const tank = engine.tankIds.indexOf(line?.tankId ?? '');
  const raw = planner.inputs.findIndex((one) => one.channelId === channel?.id);
  const kind = fit?.percentKind ?? 'span';
  return {
    name: placed.part.label,
    watch,
    sda,
    scl,
    address,
    of: fact(placed, 'letters') === null ? 'dots' : 'letters',
    raw: raw < 0 ? null : raw,
    temperature: sense('soilTenthsC') ?? sense('airTenthsC'),
    battery: sense('battery'),
    tank: tank < 0 ? null : tank,
    words: BAND_NAMES.map((one) => bandWord(one, plot.words)),
    edges: plot.bandEdges,
    scale: kind === 'tension' || kind === 'counts' || kind === 'switch' ? kind : 'percent',
    unit: unitOf(kind),
  };
}
