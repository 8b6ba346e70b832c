import { byId } from '@plain-trowel/core/quantity/byId';
import { useState } from 'react';
import { Link } from 'react-router';
import { channelName } from '@plain-trowel/core/garden/bind/channels';
import { dueCalibrations, type Due } from '@plain-trowel/core/garden/bind/dueCalibrations';
import { useGarden } from '../../../data/gardenContext.ts';
import { saveReminders } from '../../../data/reminderFile.ts';
import { sheetPath } from '../../../frame/stations.ts';
import { Button } from '../../../ui/Button.tsx';

const WHY: Readonly<Record<Exclude<Due['reason'], 'date'>, string>> = {
  supply: 'its board now runs on another supply voltage',
  board: 'it is now on another board',
  depth: 'it is now at another depth',
  soil: 'the soil has changed',
  guess: 'it uses a calibration guessed from a similar probe',
};

/** Calibrations that are due again, in the whole garden: on their day, or because something they belong to has changed. */
export function DueList() {
  const { garden } = useGarden();
  const [nowMs] = useState(() => Date.now());
  const due = dueCalibrations(garden, nowMs);
  const dated = due.filter((one) => one.reason === 'date').map((one) => one.calibration);
  if (due.length === 0) return null;
  const plotOf = (one: Due) => byId(garden.probes, one.channel.probeId)?.plotId ?? '';
  return (
    <section aria-label="Calibrations due again" className="mt-4">
      <h2>Calibrations due again</h2>
      <ul className="mt-1">
        {due.map((one) => (
          <li
            key={`${one.calibration.id} ${one.reason}`}
            className="flex flex-wrap gap-x-3 border-b border-rule py-1"
          >
            <Link
              className="font-semibold underline underline-offset-4"
              to={sheetPath(garden.id, 'bench', 'calibrate', plotOf(one))}
            >
              {channelName(garden, one.channel)}
            </Link>
            <span className={one.isNow ? 'font-medium text-handle' : ''}>
              {one.reason === 'date'
                ? `${one.isNow ? 'since' : 'on'} ${one.calibration.recalibrateBy?.slice(0, 10) ?? ''}`
                : WHY[one.reason]}
            </span>
          </li>
        ))}
      </ul>
      {dated.length > 0 && (
        <div className="mt-2">
          <Button onClick={() => saveReminders(garden, dated)}>Reminders as iCalendar</Button>
        </div>
      )}
    </section>
  );
}
