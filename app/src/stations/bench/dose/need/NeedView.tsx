import { doseOf } from '@plain-trowel/core/garden/bind/contradictions';
import { shareOfPlot } from '@plain-trowel/core/garden/bind/shares';
import { needBeside } from '@plain-trowel/core/dosing/needBeside';
import { NeedBar } from './NeedBar.tsx';
import { setPlot } from '@plain-trowel/core/garden/edits/plots';
import { type PlotParts } from '@plain-trowel/core/garden/bind/plotParts';
import type { PlotSize } from '@plain-trowel/core/garden/document/waterSchema';
import { plantGroup } from '@plain-trowel/core/plants/plantGroups';
import { knownSoil } from '@plain-trowel/core/soils/soilKinds';
import { readilyAvailable, waterNeed } from '@plain-trowel/core/plants/waterNeed';
import { formatNumber, formatVolume } from '@plain-trowel/core/quantity/format';
import { useGarden } from '../../../../data/gardenContext.ts';
import { WorkedNumber } from '../../../../frame/WorkedNumber.tsx';
import { Choice } from '../../../../ui/Choice.tsx';
import { NumberField } from '../../../../ui/NumberField.tsx';
import { PlantFields } from '../../../PlantFields.tsx';

const NEW_SIZES: Readonly<Record<PlotSize['kind'], PlotSize>> = {
  pot: { kind: 'pot', mouthCm: 25, spreadCm: 25 },
  bed: { kind: 'bed', areaM2: 1 },
};

/** An estimate is told with two figures; more would be pretence. */
const twoFigures = (value: number): number => Number(value.toPrecision(2));

/** How much a plot drinks in a day, by its size, its plant and the weather, so that a dose is not a guess. */
export function NeedView({ parts }: { parts: PlotParts }) {
  const { garden, commit } = useGarden();
  const { plot, line } = parts;
  const need = plot.size && waterNeed(plot.size, plantGroup(plot.plantGroupId), garden.weather);
  const refill =
    plot.size &&
    readilyAvailable(plot.size, plantGroup(plot.plantGroupId), knownSoil(plot.soil, plot.soil.kindId));
  const share = line ? shareOfPlot(line, plot.id) : 1;
  const dose = line && doseOf(line.program);
  const beside =
    need && line && need.value > 0 ? needBeside(need.value, line.dailyMaxMl, share, dose ?? null) : null;
  const set = (size: PlotSize) =>
    void commit(`size of ${plot.name}`, (before) => ({ garden: setPlot(before, plot.id, { size }) }));
  return (
    <>
      {need ? (
        <p className="max-w-[68ch] text-[17px]">
          {plot.name} drinks about{' '}
          <WorkedNumber
            id="need"
            lead
            worked={need}
            shown={formatVolume(twoFigures(need.value))}
            className="text-[24px]"
          />{' '}
          a day
          {beside?.dosesNeeded != null && beside.doseMl !== null && dose != null && (
            <>
              : {formatNumber(beside.dosesNeeded, 1)} doses of {formatVolume(dose)}
              {share < 1 && ` (${formatVolume(beside.doseMl)} of each reach it)`}
            </>
          )}
          .
          {line && beside?.isShort === true && (
            <span className="mt-1 block border-l-[3px] border-chaff pl-3 text-[15px]">
              That is more than {line.name} may give it in a day, {formatVolume(beside.allowedMl)}: in this
              weather it would dry out slowly, or a person must help.
            </span>
          )}
        </p>
      ) : (
        <p className="max-w-[68ch] text-[16px]">
          Say how large {plot.name} is: then plant and weather give a first estimate.
        </p>
      )}
      {need && line && beside && <NeedBar needMl={need.value} beside={beside} line={line} share={share} />}
      {refill && (
        <p className="mt-1 max-w-[68ch]">
          From its start limit to full it takes about{' '}
          <WorkedNumber id="refill" worked={refill} shown={formatVolume(twoFigures(refill.value))} />; more at
          once runs through below the roots.
        </p>
      )}
      <div className="mt-3 flex flex-wrap items-end gap-x-6 gap-y-3">
        <Choice
          legend="It is"
          showLegend
          options={[
            { value: 'pot', label: 'a pot' },
            { value: 'bed', label: 'a bed, trough or lawn' },
          ]}
          value={plot.size?.kind ?? ''}
          onChange={(kind) => set(kind === 'bed' ? NEW_SIZES.bed : NEW_SIZES.pot)}
        />
        {plot.size?.kind === 'pot' && <PotFields size={plot.size} onChange={set} />}
        {plot.size?.kind === 'bed' && (
          <div className="w-[150px]">
            <NumberField
              label="Area"
              unit="m²"
              value={plot.size.areaM2}
              least={0.01}
              most={10_000}
              whole={false}
              decimals={2}
              onKeep={(areaM2) => set({ kind: 'bed', areaM2 })}
            />
          </div>
        )}
      </div>
      <PlantFields plot={plot} />
      <p className="mt-2 max-w-[68ch] text-[14px] text-soft">
        A first estimate, good to within a factor of two: it leaves out wind, shade, mulch and how leafy the
        plant is. A week of weighing the pot, or of the log, tells more.
      </p>
    </>
  );
}

function PotFields({
  size,
  onChange,
}: {
  size: Extract<PlotSize, { kind: 'pot' }>;
  onChange: (size: PlotSize) => void;
}) {
  return (
    <>
      <div className="w-[140px]">
        <NumberField
          label="Mouth, across"
          unit="cm"
          value={size.mouthCm}
          least={3}
          most={300}
          whole={false}
          decimals={0}
          onKeep={(mouthCm) => onChange({ ...size, mouthCm })}
        />
      </div>
      <div className="w-[150px]">
        <NumberField
          label="Leaves, across"
          unit="cm"
          value={size.spreadCm}
          least={0}
          most={500}
          whole={false}
          decimals={0}
          onKeep={(spreadCm) => onChange({ ...size, spreadCm })}
        />
      </div>
    </>
  );
}
