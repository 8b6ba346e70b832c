import { useState } from 'react';
import { entryOf } from '@plain-trowel/core/records/entry';
import type { GardenEvent } from '@plain-trowel/core/records/event';
import { useGarden } from '../../../data/gardenContext.ts';
import { Button } from '../../../ui/Button.tsx';
import { eventText } from '../../../words/eventText.ts';
import { EntryForm } from './EntryForm.tsx';
import { Photo } from './Photo.tsx';
import { dayTime } from '@plain-trowel/core/quantity/timeText';

const AT_FIRST = 12;
const AUTHORS: Readonly<Record<GardenEvent['author'], string>> = {
  board: 'the board',
  page: 'this page',
  person: 'a person',
};

/** On a phone an event is two lines: when and what, and below it the rest of the story. */
const ROW = 'max-md:flex max-md:flex-wrap max-md:gap-x-3 max-md:border-b max-md:border-rule max-md:py-1.5';
const CELL = 'max-md:border-0! max-md:p-0!';

/** What happened, newest first. */
export function EventTable({ events }: { events: readonly GardenEvent[] }) {
  const { garden } = useGarden();
  const [all, setAll] = useState(false);
  const [changing, setChanging] = useState<string | null>(null);
  const shown = all ? events : events.slice(0, AT_FIRST);
  return (
    <section aria-label="Events" className="mt-4">
      <h2 className="mb-1">What happened</h2>
      {events.length === 0 ? (
        <p className="text-soft">
          Nothing in this stretch of time. Waterings, references, faults and your notes will appear here.
        </p>
      ) : (
        <table className="max-md:block">
          <thead className="max-md:hidden">
            <tr>
              <th className="w-[150px]">When</th>
              <th className="w-[128px]">What</th>
              <th>Detail</th>
              <th className="w-[90px]">By</th>
              <th className="no-print w-[80px]">Change</th>
            </tr>
          </thead>
          <tbody className="max-md:block">
            {shown.map((event, at) => {
              const { what, detail } = eventText(event);
              const entry = entryOf(event);
              if (entry && changing === event.id)
                return (
                  <tr key={event.id}>
                    <td colSpan={5}>
                      <EntryForm
                        entry={entry}
                        before={event}
                        plotId={event.plotId}
                        onDone={() => setChanging(null)}
                      />
                    </td>
                  </tr>
                );
              return (
                <tr key={`${event.atMs} ${event.kind} ${at}`} className={ROW}>
                  <td className={`num ${CELL}`}>{dayTime(event.atMs, garden.timeZone)}</td>
                  <td className={`font-semibold ${CELL}`}>{what}</td>
                  <td className={`wrap-anywhere max-md:order-last max-md:basis-full ${CELL}`}>
                    {event.kind === 'entry' && event.photo !== undefined && (
                      <Photo id={event.photo} text={event.text} />
                    )}
                    {detail}
                    {event.simulated && <span className="text-soft"> (stand-in)</span>}
                  </td>
                  <td className={`text-soft ${CELL}`}>{AUTHORS[event.author]}</td>
                  <td className={`no-print max-md:ml-auto ${CELL}`}>
                    {entry && (
                      <Button look="quiet" className="min-h-0! py-0!" onClick={() => setChanging(event.id)}>
                        Change
                        <span className="sr-only">: {what}</span>
                      </Button>
                    )}
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
