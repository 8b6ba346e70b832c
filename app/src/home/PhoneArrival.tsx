import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { loadGarden } from '../data/gardenStore.ts';
import { gardensQuery } from '../data/queries.ts';
import { database } from '../data/services.ts';
import { sheetPath } from '../frame/stations.ts';
import { gateway } from '../links/gatewayClient.ts';
import { gatewayIssueText } from '../words/networkText.ts';
import { readArrival, type Arrival } from './arrival.ts';
import { takeHere } from './takeHere.ts';

/** Lets this browser in by its ticket and takes the garden. @returns what went wrong; null: nothing */
async function arrive({ gardenId, token }: Arrival): Promise<string | null> {
  const entered = await gateway.enterWith(token);
  if (!entered.ok) return gatewayIssueText(entered.issue);
  const isHere = (await loadGarden(await database(), gardenId)).kind !== 'missing';
  return isHere ? null : takeHere(gardenId);
}

/** Where a phone begins that has read the picture on another screen. */
export default function PhoneArrival() {
  const client = useQueryClient();
  const navigate = useNavigate();
  const [arrival] = useState(() => readArrival(location.hash));
  // A ticket holds once, so it is used once, whatever is drawn again.
  const done = useQuery({
    queryKey: ['arrival', arrival?.token],
    queryFn: () => (arrival ? arrive(arrival) : null),
    enabled: arrival !== null,
    retry: false,
    staleTime: Infinity,
  });
  useEffect(() => {
    // It need not stand in the history of this browser.
    history.replaceState(null, '', '/phone');
  }, []);
  useEffect(() => {
    if (arrival === null || !done.isSuccess || done.data !== null) return;
    void client.invalidateQueries({ queryKey: gardensQuery().queryKey });
    void navigate(sheetPath(arrival.gardenId, 'season', 'today', null), { replace: true });
  }, [arrival, client, done.data, done.isSuccess, navigate]);
  const problem =
    arrival === null ? 'This address lets nobody in: open it by the picture on the other screen.' : done.data;
  return (
    <main className="mx-auto max-w-[560px] px-4 py-8">
      <h1>{problem ? 'Not here yet' : 'Taking the garden …'}</h1>
      {problem && (
        <>
          <p role="alert" className="mt-2 border-l-[3px] border-handle pl-3">
            {problem}
          </p>
          <p className="mt-3">
            <Link className="font-semibold underline underline-offset-4" to="/">
              Go to the first page
            </Link>
          </p>
        </>
      )}
    </main>
  );
}
