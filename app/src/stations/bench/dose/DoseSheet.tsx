import { fitDose } from '@plain-trowel/core/dosing/doseFit';
import { workRunTime } from '@plain-trowel/core/dosing/workDose';
import type { PlotParts } from '@plain-trowel/core/garden/edit';
import type { WaterLine } from '@plain-trowel/core/garden/schema';
import { formatNumber } from '@plain-trowel/core/quantity/format';
import { useGarden } from '../../../data/gardenContext.ts';
import { usePlotScope } from '../../../frame/usePlotScope.ts';
import { WorkedNumber } from '../../../frame/WorkedNumber.tsx';
import { usePlot } from '../../../links/liveContext.ts';
import { EmptyGarden } from '../../EmptyGarden.tsx';
import { SheetHead } from '../../SheetHead.tsx';
import { DoseCalculator } from './DoseCalculator.tsx';
import { DoseCautions } from './DoseCautions.tsx';
import { DoseChart } from './DoseChart.tsx';
import { doseIssueText } from './doseText.ts';
import { TrialForm } from './TrialForm.tsx';
import { TrialTable } from './TrialTable.tsx';

const LEAD_ML = 100;

/** How long a water line must run for a volume: trials with a jug, a line through them, and what that says of any dose. */
export default function DoseSheet() {
  const plotId = usePlotScope();
  return plotId === null ? <EmptyGarden what="dose" /> : <DoseOfPlot key={plotId} plotId={plotId} />;
}

function DoseOfPlot({ plotId }: { plotId: string }) {
  const { garden } = useGarden();
  const plot = usePlot(garden, plotId);
  if (!plot) return null;
  const { parts } = plot;
  return parts.line ? (
    <DoseOfLine key={parts.line.id} parts={parts} line={parts.line} />
  ) : (
    <>
      <SheetHead parts={parts} title={`${parts.plot.name}: no water line`} />
      <p className="max-w-[64ch]">
        Nothing waters this plot but a person. Give it a pump or a valve under{' '}
        <b className="font-semibold">Change this plot</b> on the Readout sheet; here you then measure how long
        it must run for 100 ml.
      </p>
    </>
  );
}

function DoseOfLine({ parts, line }: { parts: PlotParts; line: WaterLine }) {
  const fit = fitDose(line.trials.filter((trial) => trial.used));
  return (
    <>
      <SheetHead
        parts={parts}
        title={
          fit.ok ? `${line.name}: measured in ${line.trials.length} runs` : `${line.name}: not measured yet`
        }
      />
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
      <TrialForm line={line} plotName={parts.plot.name} />
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
