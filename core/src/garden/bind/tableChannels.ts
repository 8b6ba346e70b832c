/** A garden's channels as other programs' tables may name them. */
import { byId } from '../../quantity/byId.ts';
import { UNIT_OF } from '../../quantity/quantities.ts';
import type { NamedChannel } from '../../tables/columnNames.ts';
import { PRINTED, type Recorded } from '../../tables/units.ts';
import type { Channel, Garden } from '../document/schema.ts';
import { channelName } from './channels.ts';
import { plotParts } from './plotParts.ts';
import { readsCounts, recordUnitOf } from './scale.ts';

export const tableChannels = (garden: Garden): NamedChannel[] =>
  garden.channels.map((channel) => {
    const probe = byId(garden.probes, channel.probeId);
    const plot = byId(garden.plots, probe?.plotId) ?? undefined;
    const own = channelName(garden, channel);
    return {
      id: channel.id,
      quantity: channel.quantity,
      ...recordedOf(channel),
      plot: plot?.name ?? '',
      probe: probe?.label ?? '',
      board: byId(garden.boards, channel.boardId)?.name ?? '',
      names: [own, plot ? `${plot.name} ${own}` : '', channel.streamName].filter((name) => name !== ''),
      decides: plot !== undefined && plotParts(garden, plot.id)?.channel?.id === channel.id,
    };
  });

/** What its recorded numbers are: those of a converter, in the unit of what it measures, or what a correction alone turns into that. */
function recordedOf(channel: Channel): Recorded {
  const { correction, quantity } = channel;
  const { unit } = UNIT_OF[quantity];
  // A thermistor's curve is not turned back.
  if (correction.kind === 'thermistor') return { unit: 'raw counts', meant: null };
  if (correction.kind === 'none') return { unit: recordUnitOf(channel), meant: null };
  const gain = correction.kind === 'line' ? correction.gain : 1;
  return {
    unit: readsCounts(channel) ? 'raw counts' : PRINTED,
    meant: { unit, gain, offset: correction.offset },
  };
}
