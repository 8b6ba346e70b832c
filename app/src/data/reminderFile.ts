import { channelName } from '@plain-trowel/core/garden/bind/channels';
import type { Calibration, Garden } from '@plain-trowel/core/garden/document/schema';
import { showToast } from '../ui/toasts.ts';
import { download, fileNameOf } from './download.ts';

/** The days on which calibrations are due, as an iCalendar file (RFC 5545). Its writer is loaded only now. */
export async function saveReminders(garden: Garden, calibrations: readonly Calibration[]): Promise<void> {
  const { createEvents } = await import('ics');
  const events = calibrations.flatMap((calibration) => {
    const channel = garden.channels.find((one) => one.id === calibration.channelId);
    if (!calibration.recalibrateBy || !channel) return [];
    const day = new Date(calibration.recalibrateBy);
    const date: [number, number, number] = [day.getUTCFullYear(), day.getUTCMonth() + 1, day.getUTCDate()];
    const label = channelName(garden, channel);
    return [
      {
        uid: `${garden.id}-${calibration.id}`,
        title: `Calibrate ${label} again`,
        description: `${garden.name}: the calibration of ${label} was made on ${calibration.madeAt.slice(0, 10)}.`,
        start: date,
        duration: { days: 1 },
        productId: 'plain-trowel',
      },
    ];
  });
  const { value, error } = createEvents(events);
  if (error || !value) {
    showToast({
      tone: 'problem',
      text: 'The calendar file could not be written. Choose another day and try again.',
    });
    return;
  }
  download(`${fileNameOf(garden.name)}.reminders.ics`, value, 'text/calendar');
}
