import { useState } from 'react';
import { useQuery } from '@tanstack/react-query';
import { formatNumber } from '@plain-trowel/core/quantity/format';
import { useGarden } from '../../../data/gardenContext.ts';
import { recordsPart } from '../../../data/records.ts';
import { Button } from '../../../ui/Button.tsx';
import { runJob } from '../../../workers/files.ts';
import { DeleteReadings } from './DeleteReadings.tsx';
import { ThinOut } from './ThinOut.tsx';
import type { StretchTools } from './useStretch.ts';

const MEGABYTE = 1e6;

/** What the readings take in this browser, by year, what the browser allows, and the ways to have fewer on purpose. Opened by a press, for it reads every day, or by who has no room left. */
export function StorageUse({
  stretch,
  channelId,
  wanted,
}: {
  stretch: StretchTools;
  channelId: string;
  /** Somebody came for this. */
  wanted: boolean;
}) {
  const [open, setOpen] = useState(wanted);
  const [doing, setDoing] = useState<'delete' | 'thin' | null>(null);
  const close = () => setDoing(null);
  return (
    <details className="my-3" open={open} onToggle={({ currentTarget }) => setOpen(currentTarget.open)}>
      <summary className="press py-1 font-semibold">What the readings take, and having fewer</summary>
      {open && (
        <>
          <Years />
          <div className="mt-2 flex flex-wrap gap-3">
            <Button onClick={() => setDoing('delete')}>Delete readings of some days</Button>
            <Button onClick={() => setDoing('thin')}>Thin out old days</Button>
          </div>
        </>
      )}
      {doing === 'delete' && <DeleteReadings stretch={stretch} channelId={channelId} onClose={close} />}
      {doing === 'thin' && <ThinOut newestMs={stretch.newestMs} onClose={close} />}
    </details>
  );
}

function Years() {
  const { garden } = useGarden();
  const { data: years } = useQuery({
    queryKey: recordsPart(garden.id, { of: 'use' }),
    queryFn: () => runJob(async (jobs) => jobs.storageUse(garden.id)).result,
  });
  const { data: browser } = useQuery({
    queryKey: ['storage-estimate'],
    queryFn: () => navigator.storage.estimate(),
    // Over plain HTTP a browser does not say.
    retry: false,
    gcTime: 0,
  });
  if (!years) return <p className="text-soft">Adding up …</p>;
  const bytes = years.reduce((sum, one) => sum + one.bytes, 0);
  const readings = years.reduce((sum, one) => sum + one.readings, 0);
  return (
    <>
      {years.length === 0 ? (
        <p className="text-soft">No reading is stored yet.</p>
      ) : (
        <table className="mt-1 max-w-[520px]">
          <thead>
            <tr>
              <th>Year</th>
              <th className="text-right">Readings</th>
              <th className="text-right">Take</th>
              <th className="text-right">Each</th>
            </tr>
          </thead>
          <tbody>
            {years.map((one) => (
              <tr key={one.year}>
                <td className="num">{one.year}</td>
                <td className="num text-right">{formatNumber(one.readings)}</td>
                <td className="num text-right">{formatNumber(one.bytes / MEGABYTE, 2)} MB</td>
                <td className="num text-right">{formatNumber(one.bytes / one.readings, 1)} bytes</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <p className="mt-1 max-w-[72ch] text-[14px] text-soft">
        {years.length > 1 &&
          `Together ${formatNumber(readings)} readings in ${formatNumber(bytes / MEGABYTE, 2)} MB. `}
        {browser?.quota !== undefined &&
          browser.usage !== undefined &&
          `The browser says that all gardens of this site together take ${formatNumber(browser.usage / MEGABYTE, 1)} MB, and that it allows ${formatNumber(browser.quota / MEGABYTE)} MB. `}
        Before deleting any, save a backup: it holds all of them.
      </p>
    </>
  );
}
