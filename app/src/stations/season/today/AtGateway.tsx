import { useState } from 'react';
import { useQueryClient } from '@tanstack/react-query';
import type { Standing } from '@plain-trowel/core/protocol/feed';
import { useGarden } from '../../../data/gardenContext.ts';
import { Button } from '../../../ui/Button.tsx';
import { PublishLine } from '../../bench/readout/network/PublishLine.tsx';
import { PhoneDialog } from './PhoneDialog.tsx';

/** The garden at the gateway: whether it is the same there, and how a phone comes to it. */
export function AtGateway({ standing }: { standing: Standing }) {
  const { garden } = useGarden();
  const client = useQueryClient();
  const [isShown, setShown] = useState(false);
  return (
    <section aria-label="At the gateway" className="mt-4">
      <h2 className="mb-1 text-[13px] font-semibold text-soft">At the gateway</h2>
      <PublishLine
        standing={standing}
        onChanged={() => void client.invalidateQueries({ queryKey: ['gateway', garden.id] })}
      />
      {standing.published && (
        <Button className="mt-3" onClick={() => setShown(true)}>
          Open on your phone …
        </Button>
      )}
      {isShown && <PhoneDialog standing={standing} onClose={() => setShown(false)} />}
    </section>
  );
}
