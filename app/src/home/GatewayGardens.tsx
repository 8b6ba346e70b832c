import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { gardensQuery } from '../data/queries.ts';
import { gateway, type PublishedGarden } from '../links/gatewayClient.ts';
import { PassphraseForm } from '../stations/bench/readout/network/PassphraseForm.tsx';
import { Button } from '../ui/Button.tsx';
import { takeHere } from './takeHere.ts';
import { dayTime } from '@plain-trowel/core/quantity/timeText';

const zone = () => Intl.DateTimeFormat().resolvedOptions().timeZone || 'UTC';

/** Gardens that lie at the gateway this page comes from and are not in this browser: a new browser, or a phone, begins here. Nothing where there is no gateway. */
export default function GatewayGardens() {
  const client = useQueryClient();
  const here = useQuery(gardensQuery());
  const there = useQuery({ queryKey: ['gateway gardens'], queryFn: () => gateway.gardens(), gcTime: 0 });
  if (!there.data || !here.data) return null;
  if (!there.data.ok)
    return there.data.issue.kind === 'passphrase' ? (
      <section aria-label="At this gateway" className="border-t border-ink pt-4">
        <h2 className="mb-2">Gardens at this gateway</h2>
        <PassphraseForm onEntered={() => void client.invalidateQueries({ queryKey: ['gateway gardens'] })} />
      </section>
    ) : null;
  const known = new Set(here.data.map(({ id }) => id));
  const others = there.data.value.gardens.filter(({ id }) => !known.has(id));
  if (others.length === 0) return null;
  return (
    <section aria-label="At this gateway" className="border-t border-ink pt-4">
      <h2>Gardens at this gateway</h2>
      <ul>
        {others.map((garden) => (
          <OneGarden key={garden.id} garden={garden} />
        ))}
      </ul>
    </section>
  );
}

function OneGarden({ garden }: { garden: PublishedGarden }) {
  const client = useQueryClient();
  const navigate = useNavigate();
  const [problem, setProblem] = useState<string | null>(null);
  const [isAtWork, setAtWork] = useState(false);
  const open = async () => {
    setAtWork(true);
    const why = await takeHere(garden.id);
    setProblem(why);
    setAtWork(false);
    await client.invalidateQueries({ queryKey: gardensQuery().queryKey });
    if (why === null) await navigate(`/g/${garden.id}`);
  };
  return (
    <li className="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-rule py-2.5">
      <span className="min-w-0 flex-1 basis-[24ch]">
        <b className="font-semibold">{garden.name}</b>
        <span className="block text-[14px] text-soft">
          published {dayTime(garden.atMs, zone())} by {garden.by || 'somebody'}; what its boards have reported
          since comes along
        </span>
      </span>
      <Button disabled={isAtWork} onClick={() => void open()}>
        {isAtWork ? 'Opening …' : 'Open it here'}
      </Button>
      {problem !== null && (
        <p role="alert" className="w-full border-l-[3px] border-handle pl-3">
          {problem}
        </p>
      )}
    </li>
  );
}
