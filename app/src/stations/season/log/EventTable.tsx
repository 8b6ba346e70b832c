import { useState } from 'react';
import type { GardenEvent } from '@plain-trowel/core/records/event';
import { useGarden } from '../../../data/gardenContext.ts';
import { Button } from '../../../ui/Button.tsx';
import { eventText } from '../../../words/eventText.ts';
import { dayTime } from '@plain-trowel/core/quantity/timeText';

const AT_FIRST = 12;

/** What happened, newest first. */
export function EventTable({ events }: { events: readonly GardenEvent[] }) {
  const { garden } = useGarden();
  const [all, setAll] = useState(false);
  const shown = all ? events : events.slice(0, AT_FIRST);
  return (
    <section aria-label="Events" className="mt-4">
      <h2 className="mb-1">What happened</h2>
      {events.length === 0 ? (
        <p className="text-soft">
          Nothing in this stretch of time. Waterings, references, faults and your notes will appear here.
        </p>
      ) : (
        <table>
          <thead>
            <tr>
              <th className="w-[150px]">When</th>
              <th className="w-[128px]">What</th>
              <th>Detail</th>
            </tr>
          </thead>
          <tbody>
            {shown.map((event, at) => {
              const { what, detail } = eventText(event);
              return (
                <tr key={`${event.atMs} ${event.kind} ${at}`}>
                  <td className="num">{dayTime(event.atMs, garden.timeZone)}</td>
                  <td className="font-semibold">{what}</td>
                  <td className="wrap-anywhere">
                    {detail}
                    {event.simulated && <span className="text-soft"> (stand-in)</span>}
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
      )}
      {events.length > AT_FIRST && (
        <Button look="quiet" onClick={() => setAll(!all)}>
          {all ? 'Only the newest' : `All ${events.length}`}
        </Button>
      )}
    </section>
  );
}
