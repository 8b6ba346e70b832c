import { useQueryClient } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { loadGarden } from '../data/gardenStore.ts';
import { storeNewGarden } from '../data/newGarden.ts';
import { gardenQuery, gardensQuery, linkQuery } from '../data/queries.ts';
import { database } from '../data/services.ts';
import { problemOf, type StorageProblem } from '../data/storageProblem.ts';
import { sheetPath } from '../frame/stations.ts';
import { storageText } from '../words/storageText.ts';
import { runJob } from '../workers/files.ts';

const SAMPLE_ID = 'marigold-hare';

/** Makes sure that the sample garden is there, with its three days of past, and goes to it. */
async function prepareSample(): Promise<void> {
  const db = await database();
  if ((await loadGarden(db, SAMPLE_ID)).kind !== 'missing') return;
  const sample = await runJob((jobs) => jobs.makeSample(Date.now())).result;
  if (!sample) return;
  await storeNewGarden(db, sample.garden, {
    readings: sample.readings,
    events: sample.events,
    link: { world: sample.world, openAtStart: true, alerts: sample.alerts },
  });
}

export default function OpenSample() {
  const client = useQueryClient();
  const navigate = useNavigate();
  const [failed, setFailed] = useState<StorageProblem | null>(null);
  useEffect(() => {
    let left = false;
    prepareSample().then(
      async () => {
        if (left) return;
        await Promise.all([
          client.invalidateQueries({ queryKey: gardensQuery().queryKey }),
          client.invalidateQueries({ queryKey: gardenQuery(SAMPLE_ID).queryKey }),
          client.invalidateQueries({ queryKey: linkQuery(SAMPLE_ID).queryKey }),
        ]);
        await navigate(sheetPath(SAMPLE_ID, 'bench', 'readout', 'chilli'), { replace: true });
      },
      (error: unknown) => setFailed(problemOf(error)),
    );
    return () => {
      left = true;
    };
  }, [client, navigate]);
  return (
    <main className="mx-auto max-w-[680px] px-5 py-16">
      <h1>The Marigold Hare</h1>
      {failed ? (
        <p role="alert" className="mt-2 text-handle">
          The sample garden could not be stored. {storageText(failed)}{' '}
          <Link to="/" className="underline">
            Back to the first page
          </Link>
        </p>
      ) : (
        <p className="mt-2 text-soft">Laying out the sample garden and its last three days …</p>
      )}
    </main>
  );
}
