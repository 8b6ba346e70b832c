/** A garden's channels as other programs' tables may name them. */
import { byId } from '../../quantity/byId.ts';
import type { NamedChannel } from '../../tables/columnNames.ts';
import type { Garden } from '../document/schema.ts';
import { channelName } from './channels.ts';
import { plotParts } from './plotParts.ts';
import { recordUnitOf } from './scale.ts';

export const tableChannels = (garden: Garden): NamedChannel[] =>
  garden.channels.map((channel) => {
    const probe = byId(garden.probes, channel.probeId);
    const plot = byId(garden.plots, probe?.plotId) ?? undefined;
    const own = channelName(garden, channel);
    return {
      id: channel.id,
      quantity: channel.quantity,
      // A thermistor's numbers are those of the converter, whatever they mean.
      unit: channel.correction.kind === 'thermistor' ? 'raw counts' : recordUnitOf(channel),
      plot: plot?.name ?? '',
      probe: probe?.label ?? '',
      board: byId(garden.boards, channel.boardId)?.name ?? '',
      names: [own, plot ? `${plot.name} ${own}` : '', channel.streamName].filter((name) => name !== ''),
      decides: plot !== undefined && plotParts(garden, plot.id)?.channel?.id === channel.id,
    };
  });
