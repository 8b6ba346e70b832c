import { useQuery } from '@tanstack/react-query';
import { lazy, Suspense, useEffect } from 'react';
import { useParams } from 'react-router';
import { GardenProvider } from '../data/GardenProvider.tsx';
import { gardenQuery, linkQuery } from '../data/queries.ts';
import { problemOf } from '../data/storageProblem.ts';
import { Frame } from '../frame/Frame.tsx';
import { LiveProvider } from '../links/LiveProvider.tsx';
import { Button } from '../ui/Button.tsx';
import { OnItsWay } from '../ui/OnItsWay.tsx';
import { showToast } from '../ui/toasts.ts';
import { storageText } from '../words/storageText.ts';
import { Notice } from './Notice.tsx';

const DamagedGarden = lazy(async () => ({ default: (await import('./DamagedGarden.tsx')).DamagedGarden }));

/** Loads a garden and opens its frame; a garden that is missing or damaged is told, with what can be done. */
export default function GardenGate() {
  const { gardenId = '' } = useParams();
  const loaded = useQuery(gardenQuery(gardenId));
  const link = useQuery(linkQuery(gardenId));
  const aside = (link.data?.putAside ?? []).join();
  useEffect(() => {
    if (aside !== '')
      showToast({
        tone: 'problem',
        text: 'What the stand-in boards or the alerts remembered could not be read. It is kept aside (Season, Log) and they begin again.',
      });
  }, [aside]);
  const error = loaded.error ?? link.error;
  if (error)
    return (
      <Notice
        title="The browser’s storage cannot be read"
        text={`${storageText(problemOf(error))} Nothing was changed.`}
      >
        <Button onClick={() => location.reload()}>Load the page again</Button>
      </Notice>
    );
  if (!loaded.data || !link.data)
    return (
      <main className="px-5 py-16">
        <OnItsWay text="Opening the garden …" />
      </main>
    );
  const garden = loaded.data;
  switch (garden.kind) {
    case 'missing':
      return (
        <Notice
          title="This garden is not here"
          text="It is not kept in this browser. Open its backup or its garden.json, or choose another garden."
        />
      );
    case 'damaged':
      return (
        <Suspense>
          <DamagedGarden gardenId={gardenId} damaged={garden} />
        </Suspense>
      );
    case 'found':
      return (
        <GardenProvider key={gardenId} stored={garden.stored}>
          <LiveProvider memory={link.data}>
            <Frame />
          </LiveProvider>
        </GardenProvider>
      );
  }
}
