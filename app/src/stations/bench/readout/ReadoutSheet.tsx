import { lazy, Suspense, useState } from 'react';
import { Link } from 'react-router';
import { useGarden } from '../../../data/gardenContext.ts';
import { sheetPath } from '../../../frame/stations.ts';
import { usePlotScope, useProbeScope } from '../../../frame/usePlotScope.ts';
import { useLive, usePlot } from '../../../links/liveContext.ts';
import { Button } from '../../../ui/Button.tsx';
import { EmptyGarden } from '../../EmptyGarden.tsx';
import { MismatchNote } from '../../MismatchNote.tsx';
import { NoProbeYet } from '../../NoProbeYet.tsx';
import { ProbeSwitch } from '../../ProbeSwitch.tsx';
import { SheetHead } from '../../SheetHead.tsx';
import { uncalibratedHere } from '../handsFree/members.ts';
import { useView, Views } from '../../../ui/Views.tsx';
import { BenchControls } from './BenchControls.tsx';
import { LogSource } from '../../../links/logSource.ts';
import { LogHead } from './LogHead.tsx';
import { NowPanel } from './NowPanel.tsx';
import { SourcePanel } from './SourcePanel.tsx';
import { WarmthView } from './warmth/WarmthView.tsx';
import { BusView } from './bus/BusView.tsx';
import { ChannelsView } from './channels/ChannelsView.tsx';
import { FaultList } from './FaultList.tsx';
import { FirstTestView } from './firstTest/FirstTestView.tsx';
import { SettlingPanel } from './SettlingPanel.tsx';
import { SideBySideView } from './sideBySide/SideBySideView.tsx';
import { Reconnect } from './Reconnect.tsx';
import { RefusedLines } from './RefusedLines.tsx';
import { StandInFaults } from './StandInFaults.tsx';
import { StreamTable } from './StreamTable.tsx';
import { StripPanel } from './StripPanel.tsx';
import { UnclaimedCard } from './UnclaimedCard.tsx';
import { useHold } from './useHold.ts';

const EditPlotDialog = lazy(() => import('../../../home/EditPlotDialog.tsx'));

const VIEWS = ['watch', 'channels', 'test', 'side-by-side', 'bus', 'warmth'] as const;

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
  const plot = usePlot(garden, plotId, useProbeScope());
  const view = useView(VIEWS);
  const [changing, setChanging] = useState(false);
  const [editing, setEditing] = useState(false);
  if (!plot) return null;
  const { parts } = plot;
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
      <Views
        label="Views of Readout"
        open={view}
        views={[
          { id: 'watch', name: 'This probe' },
          { id: 'channels', name: 'All channels', count: garden.channels.length },
          { id: 'test', name: 'First test' },
          { id: 'side-by-side', name: 'Side by side' },
          { id: 'bus', name: 'Bus desk' },
          { id: 'warmth', name: 'Temperature' },
        ]}
      />
      {!parts.probe && (view === 'watch' || view === 'test') ? (
        <NoProbeYet parts={parts} />
      ) : view === 'bus' ? (
        <BusView />
      ) : view === 'warmth' ? (
        <WarmthView />
      ) : !isOpen || changing ? (
        <SourcePanel
          parts={parts}
          onOpened={() => setChanging(false)}
          {...(isOpen ? { onBack: () => setChanging(false) } : {})}
        />
      ) : view === 'watch' ? (
        <Watch gardenId={gardenId} plotId={plotId} onChangeSource={() => setChanging(true)} />
      ) : view === 'channels' ? (
        <ChannelsView />
      ) : view === 'test' ? (
        <FirstTestView plotId={plotId} />
      ) : (
        <SideBySideView />
      )}
      {editing && (
        <Suspense>
          <EditPlotDialog parts={parts} onClose={() => setEditing(false)} />
        </Suspense>
      )}
    </>
  );
}

/** The plot's own probe: its number, whether it can be trusted, its strip. */
function Watch({
  gardenId,
  plotId,
  onChangeSource,
}: {
  gardenId: string;
  plotId: string;
  onChangeSource: () => void;
}) {
  const { garden } = useGarden();
  const live = useLive();
  const plot = usePlot(garden, plotId, useProbeScope());
  const channelId = plot?.parts.channel?.id ?? '';
  const hold = useHold(channelId);
  if (!plot) return null;
  const { parts, view } = plot;
  const settling = live.settling.get(channelId);
  const hands = live.source?.hands ?? null;
  const faults = live.faults.get(channelId) ?? [];
  const isHeard = hold.present !== null || live.silent.has(channelId);
  const bare = uncalibratedHere(garden, live.present);
  const isAtRail = faults.some((one) => one.kind === 'open' || one.kind === 'short');
  return (
    <>
      {live.source instanceof LogSource && <LogHead source={live.source} />}
      <ProbeSwitch parts={parts} />
      <MismatchNote parts={parts} />
      <NowPanel parts={parts} view={view} hold={hold} />
      {settling && !isAtRail && <SettlingPanel channelId={channelId} settling={settling} />}
      <FaultList faults={faults} lines={live.lineFault} />
      <Reconnect />
      {/* While the probe's own number is not known, the question stands in the place of an empty strip. */}
      {isHeard && <StripPanel parts={parts} hold={hold} />}
      <UnclaimedCard parts={parts} />
      {!isHeard && <RefusedLines />}
      <BenchControls
        plotId={plotId}
        probeId={parts.probe?.id ?? ''}
        hold={hold}
        onChangeSource={onChangeSource}
      />
      {hands && (
        <StandInFaults hands={hands} probeId={parts.probe?.id ?? ''} boardId={parts.channel?.boardId ?? ''} />
      )}
      <StreamTable />
      {view.state === 'not-calibrated' && (
        <p className="mt-4 border-l-[3px] border-handle pl-3">
          Next: these are raw counts without a meaning yet.{' '}
          <Link
            className="font-semibold underline underline-offset-4"
            to={`${sheetPath(gardenId, 'bench', 'calibrate', plotId)}&probe=${channelId}&run=hands-free`}
          >
            Calibrate {parts.probe?.label} in air and water
          </Link>
          {bare.length > 1 && (
            <>
              ,{' '}
              <Link
                className="font-semibold underline underline-offset-4"
                to={`${sheetPath(gardenId, 'bench', 'calibrate', plotId)}&probe=${channelId}&run=hands-free&with=all`}
              >
                all {bare.length} that are heard together
              </Link>
            </>
          )}
          , or{' '}
          <Link
            className="underline underline-offset-4"
            to={sheetPath(gardenId, 'bench', 'calibrate', plotId)}
          >
            choose another way
          </Link>
          .
        </p>
      )}
    </>
  );
}
