/** Which channel tells a line, or a plot, of the air, the light and the rain about it, of its soil's temperature, and a board of its battery. Never just any. */
import { byId } from '../../quantity/byId.ts';
import type { Sense } from '../../control/conditions/conditions.ts';
import type { Quantity } from '../../quantity/quantities.ts';
import type { Channel, Garden } from '../document/schema.ts';

const QUANTITY: Readonly<Record<Sense, Quantity>> = {
  airTenthsC: 'air temperature',
  light: 'light',
  rain: 'rain',
  soilTenthsC: 'soil temperature',
  battery: 'battery voltage',
  skip: 'skip switch',
};

/** Where somebody stands who asks. */
export type Place = {
  readonly boardId: string;
  readonly plotId: string;
  /** Channels that a person has chosen; null: by place. */
  readonly chosen: {
    readonly airId: string | null;
    readonly lightId: string | null;
    readonly rainId: string | null;
    readonly skipId: string | null;
  };
};

const chosenFor = (sense: Sense, { airId, lightId, rainId, skipId }: Place['chosen']): string | null => {
  switch (sense) {
    case 'airTenthsC':
      return airId;
    case 'light':
      return lightId;
    case 'rain':
      return rainId;
    case 'skip':
      return skipId;
    default:
      return null;
  }
};

/** Channels that could be meant: the nearest ones only. More than one: a person must choose. */
export function ambientChoices(garden: Garden, place: Place, sense: Sense): readonly Channel[] {
  const all = garden.channels.filter((one) => one.quantity === QUANTITY[sense]);
  const plotOf = (one: Channel) => byId(garden.probes, one.probeId)?.plotId ?? null;
  const inPlot = all.filter((one) => plotOf(one) === place.plotId);
  // A soil's temperature is that of its own plot, or unknown.
  if (sense === 'soilTenthsC' || inPlot.length > 0) return inPlot;
  const onBoard = all.filter((one) => one.boardId === place.boardId && plotOf(one) === null);
  // Another board's battery is not this one's.
  if (sense === 'battery' || onBoard.length > 0) return onBoard;
  return all;
}

/** The channel that is meant: the chosen one, else the only one that is near. Null where none is, or where several are and nobody chose. */
export function ambientOf(garden: Garden, place: Place, sense: Sense): Channel | null {
  const id = chosenFor(sense, place.chosen);
  if (id !== null)
    return garden.channels.find((one) => one.id === id && one.quantity === QUANTITY[sense]) ?? null;
  const near = ambientChoices(garden, place, sense);
  // Two thermometers in one pot are of one soil; the first is as good as the second.
  return near.length === 1 || sense === 'soilTenthsC' ? (near[0] ?? null) : null;
}
