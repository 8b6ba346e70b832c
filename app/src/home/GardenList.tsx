import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import { Link } from 'react-router';
import { deleteGarden, type GardenSummary } from '../data/gardenStore.ts';
import { gardenQuery, gardensQuery } from '../data/queries.ts';
import { database } from '../data/services.ts';
import { problemOf } from '../data/storageProblem.ts';
import { sheetPath } from '../frame/stations.ts';
import { Button } from '../ui/Button.tsx';
import { showToast } from '../ui/toasts.ts';
import { storageText } from '../words/storageText.ts';

/** As long as the message with its Undo can be seen. */
const REMOVE_AFTER_MS = 8000;

/** The gardens kept in this browser. A removed one is only hidden until its Undo has passed. */
export default function GardenList() {
  const client = useQueryClient();
  const { data: gardens = [], error } = useQuery(gardensQuery());
  const [hidden, setHidden] = useState<ReadonlySet<string>>(new Set());
  const timers = useRef(new Map<string, ReturnType<typeof setTimeout>>());

  useEffect(() => {
    const running = timers.current;
    // Left before the Undo has passed: the garden stays.
    return () => running.forEach((timer) => clearTimeout(timer));
  }, []);

  const restore = (id: string) => {
    clearTimeout(timers.current.get(id));
    setHidden((before) => new Set([...before].filter((one) => one !== id)));
  };
  const remove = (garden: GardenSummary) => {
    setHidden((before) => new Set([...before, garden.id]));
    const timer = setTimeout(() => {
      void (async () => {
        try {
          await deleteGarden(await database(), garden.id);
        } catch (reason) {
          restore(garden.id);
          showToast({
            tone: 'problem',
            text: `${garden.name} was not removed. ${storageText(problemOf(reason))}`,
          });
          return;
        }
        client.removeQueries({ queryKey: gardenQuery(garden.id).queryKey });
        await client.invalidateQueries({ queryKey: gardensQuery().queryKey });
      })();
    }, REMOVE_AFTER_MS);
    timers.current.set(garden.id, timer);
    showToast({
      tone: 'done',
      text: `${garden.name} and its log are being removed from this browser.`,
      action: { label: 'Undo', run: () => restore(garden.id) },
    });
  };
  const shown = gardens.filter((garden) => !hidden.has(garden.id));
  if (error)
    return (
      <p role="alert" className="border-l-[3px] border-handle pl-3">
        {storageText(problemOf(error))}
      </p>
    );
  if (shown.length === 0) return null;
  return (
    <section aria-label="Your gardens">
      <h2 className="label">Your gardens</h2>
      <ul className="mt-1 border-t border-ink">
        {shown.map((garden) => (
          <li key={garden.id} className="flex items-center justify-between gap-4 border-b border-rule py-2">
            <Link to={sheetPath(garden.id, 'bench', 'readout', null)} className="min-w-0 flex-1 py-1">
              <b className="block truncate text-[17px] font-semibold underline decoration-rule underline-offset-4">
                {garden.name}
              </b>
              <span className="text-[13.5px] text-soft">
                {garden.note && `${garden.note}, `}
                {garden.plots} {garden.plots === 1 ? 'plot' : 'plots'}
              </span>
            </Link>
            <Button look="quiet" onClick={() => remove(garden)} aria-label={`Remove ${garden.name}`}>
              Remove
            </Button>
          </li>
        ))}
      </ul>
    </section>
  );
}
