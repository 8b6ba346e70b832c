import { byId } from '@plain-trowel/core/quantity/byId';
import { useQuery } from '@tanstack/react-query';
import { channelName } from '@plain-trowel/core/garden/bind/channels';
import type { Garden } from '@plain-trowel/core/garden/document/schema';
import type { AsideRecord } from '../../../data/db.ts';
import { download, fileNameOf } from '../../../data/download.ts';
import { useGarden } from '../../../data/gardenContext.ts';
import { asideQuery } from '../../../data/queries.ts';
import { Button } from '../../../ui/Button.tsx';

/** What could not be read in this garden's storage: kept as it was found, never written over. */
export function KeptAside() {
  const { garden } = useGarden();
  const aside = useQuery(asideQuery(garden.id)).data ?? [];
  if (aside.length === 0) return null;
  const save = () =>
    download(
      `${fileNameOf(garden.name)}.damaged.json`,
      JSON.stringify(aside, plainArrays, 2),
      'application/json',
    );
  return (
    <section aria-label="Kept aside" className="mt-5 border-t border-rule pt-3">
      <h2>Kept aside</h2>
      <p className="max-w-[68ch] text-[14.5px]">
        These records could not be read, so new ones were started in their place. They are kept as they were
        found.
      </p>
      <ul className="my-2">
        {aside.map((one) => (
          <li key={one.key} className="border-b border-rule py-1">
            {asideText(one, garden)}
          </li>
        ))}
      </ul>
      <Button onClick={save}>Save them as a file</Button>
    </section>
  );
}

/** Typed columns as lists, so that a person can read them. */
const plainArrays = (_key: string, value: unknown): unknown =>
  ArrayBuffer.isView(value) && !(value instanceof DataView) ? Array.from(value as Uint8Array) : value;

function asideText({ what, name }: AsideRecord, garden: Garden): string {
  if (what === 'stand-in') return 'What the stand-in boards remembered: their pots, tanks and faults.';
  if (what === 'garden') return 'A document of this garden that did not open.';
  if (what === 'alerts') return 'Which alerts were raised, seen or snoozed.';
  const [channelId = '', day = ''] = name.split(' ');
  const channel = byId(garden.channels, channelId);
  return `The readings of ${channel ? channelName(garden, channel) : channelId} on ${day} (UTC).`;
}
