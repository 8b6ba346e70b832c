import { setLimits } from '@plain-trowel/core/garden/edits/plots';
import { type PlotParts } from '@plain-trowel/core/garden/bind/plotParts';
import type { Curve } from '@plain-trowel/core/calibration/curve';
import { checkLimits, type Limits } from '@plain-trowel/core/control/limits';
import { noiseTenthsOf } from '@plain-trowel/core/garden/bind/engineOf';
import { plantGroup } from '@plain-trowel/core/plants/plantGroups';
import { RULES_OF_THUMB, suggestLimits } from '@plain-trowel/core/plants/suggestLimits';
import { demandMm } from '@plain-trowel/core/plants/waterNeed';
import { formatPercent } from '@plain-trowel/core/quantity/format';
import { knownSoil } from '@plain-trowel/core/soils/soilKinds';
import { useGarden } from '../../../data/gardenContext.ts';
import { WorkedNumber } from '../../../frame/WorkedNumber.tsx';
import { Button } from '../../../ui/Button.tsx';
import { PlantFields } from '../../PlantFields.tsx';

/** Limits to begin with: from plant, soil and weather, with the working; or one of the rules that makers pass on, as what it is. */
export function SuggestPanel({ parts, fit }: { parts: PlotParts; fit: Curve }) {
  const { garden, commit } = useGarden();
  const { plot } = parts;
  const plant = plantGroup(plot.plantGroupId);
  const soil = knownSoil(plot.soil, plot.soil.kindId);
  const method = parts.calibration?.method;
  const suggested = suggestLimits({
    plant,
    soil,
    kind: fit.percentKind,
    isSoilSpan: method === 'dry-soaked' || method === 'dry-right-soaked',
    etMmPerDay: demandMm(plant, garden.weather),
    curve: fit,
  });
  const take = (limits: Limits, origin: string) =>
    void commit(
      `limits of ${plot.name} from ${origin}`,
      (before) => ({
        garden: setLimits(before, plot.id, {
          startTenths: limits.startTenths,
          stopTenths: limits.stopTenths,
        }),
      }),
      `The limits of ${plot.name} were taken from ${origin}.`,
    );
  const isTaken =
    suggested.startTenths === plot.limits.startTenths && suggested.stopTenths === plot.limits.stopTenths;
  const issue = checkLimits(suggested, noiseTenthsOf(fit));
  return (
    <section aria-label="Limits to begin with" className="mt-4 border-t border-rule pt-3">
      <h2>Limits to begin with</h2>
      <PlantFields
        plot={plot}
        soilHint={soil.from === 'own' ? 'What you measured yourself comes first.' : undefined}
      />
      <div className="mt-3 flex flex-wrap items-start justify-between gap-x-6 gap-y-2">
        <p className="max-w-[60ch]">
          {suggested.unknown.includes('percent') || suggested.unknown.includes('soil')
            ? 'A cautious default'
            : 'Suggested'}
          : start at{' '}
          <WorkedNumber
            id="suggest-start"
            worked={suggested.start}
            shown={formatPercent(suggested.startTenths / 10, fit)}
          />
          , stop at{' '}
          <WorkedNumber
            id="suggest-stop"
            worked={suggested.stop}
            shown={formatPercent(suggested.stopTenths / 10, fit)}
          />
          : raw <Raw of={suggested.start} /> and <Raw of={suggested.stop} /> counts.
          <span className="mt-1 block text-[14px] text-soft">
            {basisText(suggested.unknown, plant?.basis, soil.basis)}
          </span>
        </p>
        <Button
          disabled={isTaken || issue !== null}
          onClick={() =>
            take(suggested, suggested.unknown.length > 0 ? 'the cautious default' : 'plant and soil')
          }
        >
          {isTaken ? 'These are in use' : 'Take these limits'}
        </Button>
      </div>
      {issue && (
        <p className="text-[14px] text-handle">
          These two lie closer together than the noise of this probe, so a pump would chatter. Choose a soil
          that holds more, or set the limits by hand.
        </p>
      )}
      {fit.percentKind === 'span' && (
        <details className="mt-3">
          <summary className="press py-1">Rules that makers pass on to each other, for span percent</summary>
          <p className="mt-1 max-w-[66ch] text-[14px] text-soft">
            Nobody measured them for your probe and your soil; two probes at “40 %” can mean very different
            soils. They are a place to begin when nothing else is known.
          </p>
          <ul className="mt-1">
            {RULES_OF_THUMB.map((rule) => (
              <li key={rule.id} className="flex flex-wrap items-center gap-x-4 border-b border-rule py-1">
                <span className="min-w-[320px] flex-1">{rule.name} % span</span>
                <button
                  type="button"
                  className="press underline underline-offset-4"
                  onClick={() => take(rule, 'a rule of thumb')}
                >
                  Take <span className="sr-only">{rule.name}</span>
                </button>
              </li>
            ))}
          </ul>
        </details>
      )}
    </section>
  );
}

/** The raw counts that end a suggestion's working. */
function Raw({ of }: { of: ReturnType<typeof suggestLimits>['start'] }) {
  const last = of.steps.at(-1);
  return <span className="num">{last?.unit === 'counts' ? last.value : '–'}</span>;
}

function basisText(
  unknown: ReturnType<typeof suggestLimits>['unknown'],
  plant: string | undefined,
  soil: string,
): string {
  if (unknown.includes('percent'))
    return 'Percent of this calibration says nothing about the soil, so plant and soil cannot be turned into it. A calibration by mixing, pot weighing or a drain test can.';
  if (unknown.includes('soil')) return 'Choose a soil, or make a drain test: then plant and soil decide.';
  return `Plant: ${plant ?? 'not said, so it is taken to be thirsty'}. Soil: ${soil}.`;
}
