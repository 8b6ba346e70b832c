import { lazy, Suspense, useState } from 'react';
import { Link } from 'react-router';
import type { PlotParts } from '@plain-trowel/core/garden/bind/plotParts';
import { useGarden } from '../data/gardenContext.ts';
import { sheetPath } from '../frame/stations.ts';
import { Button } from '../ui/Button.tsx';

const EditPlotDialog = lazy(() => import('../home/EditPlotDialog.tsx'));

/** In place of a sheet about a probe, for a plot that has none: the two ways to one. */
export function NoProbeYet({ parts }: { parts: PlotParts }) {
  const { garden } = useGarden();
  const [editing, setEditing] = useState(false);
  return (
    <section aria-label="No probe yet" className="max-w-[60ch]">
      <p>Nothing can be read here before a probe stands in {parts.plot.name}.</p>
      <div className="mt-4 flex flex-wrap items-center gap-3">
        <Button look="primary" onClick={() => setEditing(true)}>
          I have a board and a probe
        </Button>
        <Link
          to={sheetPath(garden.id, 'plan', 'parts', null)}
          className="press underline decoration-rule underline-offset-4"
        >
          Choose them with Plan
        </Link>
      </div>
      {editing && (
        <Suspense>
          <EditPlotDialog parts={parts} onClose={() => setEditing(false)} />
        </Suspense>
      )}
    </section>
  );
}
