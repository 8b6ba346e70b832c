import { doseFitOf, usedTrials } from '@plain-trowel/core/garden/bind/lineDose';
import { workRunTime } from '@plain-trowel/core/dosing/workDose';
import type { PlotParts } from '@plain-trowel/core/garden/bind/plotParts';
import type { WaterLine } from '@plain-trowel/core/garden/document/schema';
import { formatNumber } from '@plain-trowel/core/quantity/format';
import { useGarden } from '../../../data/gardenContext.ts';
import { usePlotScope } from '../../../frame/usePlotScope.ts';
import { WorkedNumber } from '../../../frame/WorkedNumber.tsx';
import { usePlot } from '../../../links/liveContext.ts';
import { useView, Views } from '../../../ui/Views.tsx';
import { EmptyGarden } from '../../EmptyGarden.tsx';
import { MismatchNote } from '../../MismatchNote.tsx';
import { SheetHead } from '../../SheetHead.tsx';
import { DoseCalculator } from './DoseCalculator.tsx';
import { DoseCautions } from './DoseCautions.tsx';
import { DoseChart } from './DoseChart.tsx';
import { doseIssueText } from './doseText.ts';
import { NeedView } from './need/NeedView.tsx';
import { OutletsView } from './outlets/OutletsView.tsx';
import { RefitNote } from './RefitNote.tsx';
import { ReservoirView } from './reservoir/ReservoirView.tsx';
import { RigFields } from './RigFields.tsx';
import { TrialForm } from './TrialForm.tsx';
import { TrialTable } from './TrialTable.tsx';

const LEAD_ML = 100;
const VIEWS = ['run', 'outlets', 'reservoir', 'need'] as const;

/** How long a water line must run for a volume, where its water goes, what is left of it, and how much the plot drinks. */
export default function DoseSheet() {
  const plotId = usePlotScope();
  return plotId === null ? <EmptyGarden what="dose" /> : <DoseOfPlot key={plotId} plotId={plotId} />;
}

function DoseOfPlot({ plotId }: { plotId: string }) {
  const { garden } = useGarden();
  const plot = usePlot(garden, plotId);
  const open = useView(VIEWS);
  if (!plot) return null;
  const { parts } = plot;
  const { line } = parts;
  return (
    <>
      <SheetHead parts={parts} title={titleOf(parts)} />
      <MismatchNote parts={parts} />
      <Views
        label="Views of Dose"
        open={open}
        views={[
          { id: 'run', name: 'Run time' },
          { id: 'outlets', name: 'Outlets' },
          { id: 'reservoir', name: 'Reservoir' },
          { id: 'need', name: 'Water need' },
        ]}
      />
      {open === 'run' && (line ? <RunTime key={line.id} line={line} /> : <NoLine />)}
      {open === 'outlets' && (line ? <OutletsView key={line.id} line={line} /> : <NoLine />)}
      {open === 'reservoir' && <ReservoirView line={line} />}
      {open === 'need' && <NeedView parts={parts} />}
    </>
  );
}

function titleOf({ plot, line }: PlotParts): string {
  if (!line) return `${plot.name}: no water line`;
  return doseFitOf(line).ok
    ? `${line.name}: measured in ${usedTrials(line).length} runs`
    : `${line.name}: not measured yet`;
}

const NoLine = () => (
  <p className="max-w-[64ch]">
    This plot is watered by hand. Give it a pump or a valve under{' '}
    <b className="font-semibold">Change this plot</b> on the Readout sheet; here you then measure how long it
    must run for 100 ml, and where its water goes.
  </p>
);

function RunTime({ line }: { line: WaterLine }) {
  const fit = doseFitOf(line);
  return (
    <>
      {fit.ok ? (
        <p className="text-[17px]">
          {LEAD_ML} ml take{' '}
          <WorkedNumber
            id="lead-dose"
            lead
            worked={workRunTime(fit.value, LEAD_ML)}
            className="text-[26px]"
          />
          : <span className="num">{formatNumber(fit.value.secondsPerMl, 3)} s</span> for each ml, and{' '}
          <span className="num">{formatNumber(fit.value.tubeS, 1)} s</span> before the first drop.
        </p>
      ) : (
        <p className="max-w-[66ch] text-[16px]">{doseIssueText(fit.issue)}</p>
      )}
      <RefitNote line={line} />
      <TrialForm line={line} />
      <RigFields line={line} />
      <TrialTable line={line} fit={fit.ok ? fit.value : null} />
      {fit.ok && (
        <>
          <DoseChart trials={line.trials} fit={fit.value} />
          <DoseCalculator line={line} fit={fit.value} />
        </>
      )}
      <DoseCautions />
    </>
  );
}
