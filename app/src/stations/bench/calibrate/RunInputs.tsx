import { mixingInputs, type InputField, type Method } from '@plain-trowel/core/calibration/methods';
import { planMixing } from '@plain-trowel/core/calibration/mixing';
import { setRunInput } from '@plain-trowel/core/garden/edits/calibrations';
import type { Run } from '@plain-trowel/core/garden/document/schema';
import { formatNumber } from '@plain-trowel/core/quantity/format';
import { useGarden } from '../../../data/gardenContext.ts';
import { CellNumber } from '../../../ui/CellNumber.tsx';
import { Choice } from '../../../ui/Choice.tsx';
import { knownText } from '../../../words/calibrationText.ts';

/** The numbers that a method asks for once. They can be put right at any time; what was weighed is reckoned again. */
export function RunInputs({ run, method }: { run: Run; method: Method }) {
  if (method.fields.length === 0) return null;
  return (
    <section aria-label="Numbers of this method" className="mt-3">
      <h2 className="text-[15px]">Weigh and measure first</h2>
      <div className="mt-1 grid grid-cols-1 gap-x-6 gap-y-1.5 sm:grid-cols-2">
        {method.fields.map((field) => (
          <InputRow key={field.key} run={run} field={field} />
        ))}
      </div>
      {method.id === 'mixing' && <MixingPlanNote run={run} />}
    </section>
  );
}

function InputRow({ run, field }: { run: Run; field: InputField }) {
  const { commit } = useGarden();
  const value = run.inputs[field.key] ?? null;
  const keep = (next: number | null) =>
    void commit(field.label, (garden) => ({
      garden: setRunInput(garden, run.channelId, field.key, next),
    }));
  return (
    <div className="flex items-center justify-between gap-3 border-b border-rule pb-1">
      <span className="text-[14px]">
        {field.label}
        {field.optional && <span className="text-soft"> (optional)</span>}
      </span>
      {field.choices ? (
        <Choice
          legend={field.label}
          options={[...field.choices]}
          value={value ?? field.usual ?? 0}
          onChange={keep}
        />
      ) : (
        <span className="flex w-[150px] shrink-0 items-center gap-2">
          <CellNumber
            label={field.label}
            value={value}
            least={field.least}
            most={field.most}
            decimals={field.whole ? 0 : field.least > 0 && field.least < 1 ? 2 : 1}
            onKeep={keep}
          />
          <span className="w-[44px] text-[13.5px] text-soft">{field.unit}</span>
        </span>
      )}
    </div>
  );
}

/** What the mixing series will be: bulk density, pores, and the water for each step. */
function MixingPlanNote({ run }: { run: Run }) {
  const plan = planMixing(mixingInputs(run.inputs));
  if (!plan.ok)
    return (
      <p className="mt-2 text-[14px] text-soft">
        The plan follows from these numbers: {knownText(plan.issue)}.
      </p>
    );
  const { bulkDensity, porosity, drySoilG, steps } = plan.value;
  const [, second] = steps;
  return (
    <p className="mt-2 text-[14px]">
      Dry soil <span className="num">{formatNumber(drySoilG)} g</span>, bulk density{' '}
      <span className="num">{formatNumber(bulkDensity, 2)} g/cm³</span>, pores{' '}
      <span className="num">{formatNumber(100 * porosity)} %</span> of the volume. {steps.length} steps from{' '}
      <span className="num">{formatNumber(100 * (steps[0]?.volumetric ?? 0), 1)}</span> to{' '}
      <span className="num">{formatNumber(100 * (steps.at(-1)?.volumetric ?? 0), 1)} % VWC</span>, each with{' '}
      <span className="num">{formatNumber(second?.addG ?? 0)} g</span> of water. What evaporates does no harm:
      the container is weighed each time.
    </p>
  );
}
