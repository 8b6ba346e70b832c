import { lazy, Suspense, useState } from 'react';
import { Link } from 'react-router';
import { useGarden } from '../../../data/gardenContext.ts';
import { sheetPath } from '../../../frame/stations.ts';
import { usePlotScope } from '../../../frame/usePlotScope.ts';
import { useLive, usePlot } from '../../../links/liveContext.ts';
import { Button } from '../../../ui/Button.tsx';
import { EmptyGarden } from '../../EmptyGarden.tsx';
import { SheetHead } from '../../SheetHead.tsx';
import { BenchControls } from './BenchControls.tsx';
import { NowPanel } from './NowPanel.tsx';
import { SourcePanel } from './SourcePanel.tsx';
import { StreamTable } from './StreamTable.tsx';
import { StripPanel } from './StripPanel.tsx';
import { useHold } from './useHold.ts';

const EditPlotDialog = lazy(() => import('../../../home/EditPlotDialog.tsx'));

/** Raw numbers as they come: what the probe says now, how calm it is, and what could not be read. */
export default function ReadoutSheet() {
  const { garden } = useGarden();
  const plotId = usePlotScope();
  return plotId === null ? (
    <EmptyGarden what="readout" />
  ) : (
    <Readout key={plotId} gardenId={garden.id} plotId={plotId} />
  );
}

function Readout({ gardenId, plotId }: { gardenId: string; plotId: string }) {
  const { garden } = useGarden();
  const live = useLive();
  const plot = usePlot(garden, plotId);
  const hold = useHold(plot?.parts.channel?.id ?? '');
  const [changing, setChanging] = useState(false);
  const [editing, setEditing] = useState(false);
  if (!plot) return null;
  const { parts, view } = plot;
  const isOpen = live.source !== null && live.status !== 'failed';
  return (
    <>
      <SheetHead
        parts={parts}
        action={
          <Button look="quiet" onClick={() => setEditing(true)}>
            Change this plot
          </Button>
        }
      />
      {isOpen && !changing ? (
        <>
          <NowPanel parts={parts} view={view} hold={hold} />
          <StripPanel parts={parts} hold={hold} />
          <BenchControls plotId={plotId} hold={hold} onChangeSource={() => setChanging(true)} />
          <StreamTable parts={parts} />
          {view.state === 'not-calibrated' && (
            <p className="mt-4 border-l-[3px] border-handle pl-3">
              Next: these are raw counts without a meaning yet.{' '}
              <Link
                className="font-semibold underline underline-offset-4"
                to={sheetPath(gardenId, 'bench', 'calibrate', plotId)}
              >
                Calibrate {parts.probe?.label}
              </Link>
              .
            </p>
          )}
        </>
      ) : (
        <SourcePanel
          parts={parts}
          onOpened={() => setChanging(false)}
          {...(isOpen ? { onBack: () => setChanging(false) } : {})}
        />
      )}
      {editing && (
        <Suspense>
          <EditPlotDialog parts={parts} onClose={() => setEditing(false)} />
        </Suspense>
      )}
    </>
  );
}
