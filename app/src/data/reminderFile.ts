import { byId } from '@plain-trowel/core/quantity/byId';
import { channelName } from '@plain-trowel/core/garden/bind/channels';
import type { Calibration, Garden } from '@plain-trowel/core/garden/document/schema';
import { iCalendar, type DayEvent } from '@plain-trowel/core/records/icalendar';
import { download, fileNameOf } from './download.ts';

/** The days on which calibrations are due, as an iCalendar file (RFC 5545). */
export function saveReminders(garden: Garden, calibrations: readonly Calibration[]): void {
  const events = calibrations.flatMap((calibration): DayEvent[] => {
    const channel = byId(garden.channels, calibration.channelId);
    if (!calibration.recalibrateBy || !channel) return [];
    const label = channelName(garden, channel);
    return [
      {
        uid: `${garden.id}-${calibration.id}`,
        title: `Calibrate ${label} again`,
        description: `${garden.name}: the calibration of ${label} was made on ${calibration.madeAt.slice(0, 10)}.`,
        dayMs: Date.parse(calibration.recalibrateBy),
      },
    ];
  });
  download(`${fileNameOf(garden.name)}.reminders.ics`, iCalendar(events, Date.now()), 'text/calendar');
}
