import { useQuery } from '@tanstack/react-query';
import { Link, useParams } from 'react-router';
import { download } from '../data/download.ts';
import { GardenProvider } from '../data/GardenProvider.tsx';
import { gardenQuery, linkQuery } from '../data/queries.ts';
import { Frame } from '../frame/Frame.tsx';
import { LiveProvider } from '../links/LiveProvider.tsx';
import { Button } from '../ui/Button.tsx';
import { gardenFileText } from '../words/issueText.ts';

function Notice({ title, text, children }: { title: string; text: string; children?: React.ReactNode }) {
  return (
    <main className="mx-auto flex max-w-[680px] flex-col items-start gap-4 px-5 py-16">
      <h1>{title}</h1>
      <p>{text}</p>
      {children}
      <Link to="/" className="underline underline-offset-4">
        All gardens
      </Link>
    </main>
  );
}

/** Loads a garden and opens its frame; a garden that is missing or damaged is told, with what can be done. */
export default function GardenGate() {
  const { gardenId = '' } = useParams();
  const loaded = useQuery(gardenQuery(gardenId));
  const link = useQuery(linkQuery(gardenId));
  if (loaded.isError || link.isError)
    return (
      <Notice
        title="The browser’s storage cannot be read"
        text="Close other tabs of Plain Trowel and load this page again. Nothing was changed."
      />
    );
  if (!loaded.data || !link.data) return <p className="px-5 py-16 text-soft">Opening the garden …</p>;
  const garden = loaded.data;
  switch (garden.kind) {
    case 'missing':
      return (
        <Notice
          title="This garden is not here"
          text="It is not kept in this browser. Open its garden.json, or choose another garden."
        />
      );
    case 'damaged':
      return (
        <Notice title="This garden cannot be read" text={gardenFileText(garden.issue)}>
          <Button
            onClick={() =>
              download(`${gardenId}.damaged.json`, JSON.stringify(garden.doc, null, 2), 'application/json')
            }
          >
            Save it as a file
          </Button>
        </Notice>
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
