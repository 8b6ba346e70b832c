import type { Senses } from '../../control/host/senses.ts';
import { localTimeIn } from '../../quantity/localTime.ts';
import { meantOf } from '../../temperature/correction.ts';
import { sunOf } from './sun.ts';
import { fullScaleOf } from './channels.ts';
import type { Garden } from '../document/schema.ts';

/** How the boards of a garden take their readings: corrections and time zone are the garden's. @param newest where the readings come from */
export function sensesOf(garden: Garden, newest: Senses['newest']): Senses {
  const channels = new Map(garden.channels.map((one) => [one.id, one]));
  const localTime = localTimeIn(garden.timeZone);
  return {
    newest,
    meant: (channelId, raw) => {
      const channel = channels.get(channelId);
      return channel ? meantOf(channel, raw, fullScaleOf(garden, channel)) : null;
    },
    localTime,
    sunTimes: sunOf(garden, localTime),
  };
}
