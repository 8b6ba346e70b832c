import { plotParts, type PlotParts } from '@plain-trowel/core/garden/bind/plotParts';
import { formatPercent } from '@plain-trowel/core/quantity/format';
import { risesDrying } from '@plain-trowel/core/quantity/percentKind';
import { useGarden } from '../../../data/gardenContext.ts';
import { usePlotScope } from '../../../frame/usePlotScope.ts';
import { decidedView } from '@plain-trowel/core/live/plotView';
import { useLive, useLiveTools } from '../../../links/liveContext.ts';
import { useView, Views } from '../../../ui/Views.tsx';
import { EmptyGarden } from '../../EmptyGarden.tsx';
import { MismatchNote } from '../../MismatchNote.tsx';
import { SheetHead } from '../../SheetHead.tsx';
import { AlertsView } from './alerts/AlertsView.tsx';
import { LimitsView } from './LimitsView.tsx';
import { OutputsView } from './outputs/OutputsView.tsx';
import { PlotsView } from './PlotsView.tsx';
import { ProgramView } from './program/ProgramView.tsx';
import { SignalsView } from './signals/SignalsView.tsx';

const VIEWS = ['limits', 'program', 'outputs', 'signals', 'alerts', 'plots'] as const;

/** When a plot is watered and by what program, what its lamp says, and what is told to its person. */
export default function LimitsSheet() {
  const plotId = usePlotScope();
  return plotId === null ? <EmptyGarden what="limits" /> : <LimitsOfPlot key={plotId} plotId={plotId} />;
}

function LimitsOfPlot({ plotId }: { plotId: string }) {
  const { garden } = useGarden();
  const live = useLive();
  const { stored } = useLiveTools();
  const parts = plotParts(garden, plotId);
  const open = useView(VIEWS);
  const { alerts } = live;
  if (!parts) return null;
  const outputs = garden.contacts.filter((one) => one.plotId === plotId).length;
  const view = decidedView(garden, parts, live, stored);
  return (
    <>
      <SheetHead parts={parts} title={titleOf(parts)} />
      <MismatchNote parts={parts} />
      <Views
        label="Views of Limits"
        open={open}
        views={[
          { id: 'limits', name: 'Limits' },
          { id: 'program', name: 'Program' },
          { id: 'outputs', name: 'Other outputs', ...(outputs > 0 ? { count: outputs } : {}) },
          { id: 'signals', name: 'Signals' },
          { id: 'alerts', name: 'Alerts', ...(alerts.length > 0 ? { count: alerts.length } : {}) },
          { id: 'plots', name: 'All plots', count: garden.plots.length },
        ]}
      />
      {open === 'limits' && <LimitsView parts={parts} view={view} />}
      {open === 'program' && <ProgramView parts={parts} />}
      {open === 'outputs' && <OutputsView parts={parts} />}
      {open === 'signals' && <SignalsView parts={parts} />}
      {open === 'alerts' && <AlertsView />}
      {open === 'plots' && <PlotsView parts={parts} />}
    </>
  );
}

function titleOf({ plot, fit, line }: PlotParts): string {
  if (!fit) return `${plot.name}: no limits yet`;
  const percent = (tenths: number) => formatPercent(tenths / 10, fit);
  const { startTenths, stopTenths } = plot.limits;
  if (fit.percentKind === 'switch')
    return line === null ? `${plot.name}: lamp on when dry` : `${plot.name}: water when dry, stop when wet`;
  const side = risesDrying(fit) ? 'above' : 'below';
  return line === null
    ? `${plot.name}: lamp on ${side} ${percent(startTenths)}`
    : `${plot.name}: water ${side} ${percent(startTenths)}, stop at ${percent(stopTenths)}`;
}
