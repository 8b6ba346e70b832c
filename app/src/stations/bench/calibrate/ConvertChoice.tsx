import { methodOf, mixingInputs } from '@plain-trowel/core/calibration/methods';
import { planMixing } from '@plain-trowel/core/calibration/mixing';
import type { SoilFacts } from '@plain-trowel/core/calibration/convertPercent';
import type { Outcome } from '@plain-trowel/core/calibration/run';
import { setRunConversion, setSoilFacts } from '@plain-trowel/core/garden/edits/calibrations';
import type { PlotParts } from '@plain-trowel/core/garden/bind/plotParts';
import type { Run } from '@plain-trowel/core/garden/document/schema';
import type { PercentKind } from '@plain-trowel/core/quantity/percentKind';
import { useGarden } from '../../../data/gardenContext.ts';
import { CellNumber } from '../../../ui/CellNumber.tsx';
import { Choice } from '../../../ui/Choice.tsx';
import { convertIssueText } from '../../../words/calibrationText.ts';

const FACTS = [
  ['bulkDensity', 'Bulk density', 'g/cm³', 0.02, 2.6, 2],
  ['capacityVwc', 'Capacity', '% VWC', 0, 100, 1],
  ['wiltingVwc', 'Wilting point', '% VWC', 0, 100, 1],
] as const;

/** Another kind of percent than the method gives, where the soil is known well enough to turn the one into the other. */
export function ConvertChoice({ parts, run, outcome }: { parts: PlotParts; run: Run; outcome: Outcome }) {
  const { commit } = useGarden();
  const { plot } = parts;
  const own = methodOf(run.method).percentKind(run.inputs);
  if (own === 'span' || own === 'factory' || own === 'counts') return null;
  const plan = run.method === 'mixing' ? planMixing(mixingInputs(run.inputs)) : null;
  const soil: SoilFacts = {
    bulkDensity: plan?.ok ? plan.value.bulkDensity : plot.soil.bulkDensity,
    capacityVwc: plot.soil.capacityVwc,
    wiltingVwc: plot.soil.wiltingVwc,
  };
  const turn = (to: PercentKind) =>
    void commit('kind of percent', (garden) => ({
      garden: setRunConversion(garden, run.channelId, to === own ? null : { to, soil }),
    }));
  return (
    <div className="mt-2 flex flex-wrap items-center gap-x-5 gap-y-2 text-[14px]">
      <Choice
        legend="Show it as"
        showLegend
        options={(['volumetric', 'gravimetric', 'available'] as const).map((value) => ({
          value,
          label: value,
        }))}
        value={(run.convert?.to ?? own) as 'volumetric' | 'gravimetric' | 'available'}
        onChange={turn}
      />
      {FACTS.map(([key, label, unit, least, most, decimals]) => (
        <span key={key} className="flex items-center gap-2">
          {label}
          <CellNumber
            label={label}
            value={plot.soil[key]}
            least={least}
            most={most}
            decimals={decimals}
            onKeep={(value) =>
              void commit(`${label} of ${plot.name}`, (garden) => {
                const known = setSoilFacts(garden, plot.id, { [key]: value });
                return {
                  garden: run.convert
                    ? setRunConversion(known, run.channelId, {
                        ...run.convert,
                        soil: { ...run.convert.soil, [key]: value },
                      })
                    : known,
                };
              })
            }
          />
          <span className="text-soft">{unit}</span>
        </span>
      ))}
      {outcome.convertIssue && (
        <p role="alert" className="w-full border-l-[3px] border-handle pl-3">
          {convertIssueText(outcome.convertIssue)}
        </p>
      )}
    </div>
  );
}
