import { setLimits } from '@plain-trowel/core/garden/edits/plots';
import { type PlotParts } from '@plain-trowel/core/garden/bind/plotParts';
import { limitRange } from '@plain-trowel/core/garden/bind/limitRange';
import { suggestionFor } from '@plain-trowel/core/garden/bind/suggested';
import type { Curve } from '@plain-trowel/core/calibration/curve';
import { checkLimits, type Limits } from '@plain-trowel/core/control/limits';
import { noiseTenthsOf } from '@plain-trowel/core/garden/bind/engineParts';
import { plantGroup } from '@plain-trowel/core/plants/plantGroups';
import { RULES_OF_THUMB, type Suggested } from '@plain-trowel/core/plants/suggestLimits';
import { formatPercent } from '@plain-trowel/core/quantity/format';
import { knownSoil } from '@plain-trowel/core/soils/soilKinds';
import { useGarden } from '../../../data/gardenContext.ts';
import { WorkedNumber } from '../../../frame/WorkedNumber.tsx';
import { Button } from '../../../ui/Button.tsx';
import { limitText } from '../../../words/issueText.ts';
import { basisText, noSuggestionText, roughText } from '../../../words/suggestText.ts';
import { PlantFields } from '../../PlantFields.tsx';

/** Limits to begin with: from plant, soil and weather, with the working; or one of the rules that makers pass on, as what it is. */
export function SuggestPanel({ parts, fit }: { parts: PlotParts; fit: Curve }) {
  const { commit } = useGarden();
  const { plot } = parts;
  const soil = knownSoil(plot.soil, plot.soil.kindId);
  const suggested = suggestionFor(parts, fit);
  const take = (limits: Limits, origin: string) =>
    void commit(
      `limits of ${plot.name} from ${origin}`,
      (before) => ({
        garden: setLimits(before, plot.id, {
          startTenths: limits.startTenths,
          stopTenths: limits.stopTenths,
        }),
      }),
      `The limits of ${plot.name} were taken from ${origin}, and its words go with them.`,
    );
  return (
    <section aria-label="Limits to begin with" className="mt-4 border-t border-rule pt-3">
      <h2>Limits to begin with</h2>
      <PlantFields
        plot={plot}
        soilHint={soil.from === 'own' ? 'What you measured yourself comes first.' : undefined}
      />
      {suggested.kind === 'none' ? (
        <p className="mt-3 max-w-[64ch]">{noSuggestionText(suggested, fit)}</p>
      ) : (
        <Offer parts={parts} fit={fit} suggested={suggested} soilBasis={soil.basis} onTake={take} />
      )}
      {fit.percentKind === 'span' && <RulesOfThumb onTake={(limits) => take(limits, 'a rule of thumb')} />}
    </section>
  );
}

function Offer({
  parts,
  fit,
  suggested,
  soilBasis,
  onTake,
}: {
  parts: PlotParts;
  fit: Curve;
  suggested: Suggested;
  soilBasis: string;
  onTake: (limits: Limits, origin: string) => void;
}) {
  const { plot } = parts;
  const isTaken =
    suggested.startTenths === plot.limits.startTenths && suggested.stopTenths === plot.limits.stopTenths;
  const issue = checkLimits(suggested, noiseTenthsOf(fit), limitRange(parts, fit));
  const isCautious = suggested.unknown.includes('percent') || suggested.rough !== null;
  return (
    <>
      <div className="mt-3 flex flex-wrap items-start justify-between gap-x-6 gap-y-2">
        <p className="max-w-[60ch]">
          {isCautious ? 'Cautious limits' : 'Suggested'}: start at{' '}
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
            {suggested.rough
              ? roughText(suggested.rough)
              : basisText(suggested.unknown, plantGroup(plot.plantGroupId)?.basis, soilBasis)}
          </span>
        </p>
        <Button
          disabled={isTaken || issue !== null}
          onClick={() => onTake(suggested, isCautious ? 'the cautious default' : 'plant and soil')}
        >
          {isTaken ? 'These are in use' : 'Take these limits'}
        </Button>
      </div>
      {issue && <p className="text-[14px] text-handle">Not to be taken here: {limitText(issue, fit)}</p>}
    </>
  );
}

const RulesOfThumb = ({ onTake }: { onTake: (limits: Limits) => void }) => (
  <details className="mt-3">
    <summary className="press py-1">Rules that makers pass on to each other, for span percent</summary>
    <p className="mt-1 max-w-[66ch] text-[14px] text-soft">
      Nobody measured them for your probe and your soil; two probes at “40 %” can mean very different soils.
      They are a place to begin when nothing else is known.
    </p>
    <ul className="mt-1">
      {RULES_OF_THUMB.map((rule) => (
        <li key={rule.id} className="flex flex-wrap items-center gap-x-4 border-b border-rule py-1">
          <span className="min-w-[320px] flex-1">{rule.name} % span</span>
          <button type="button" className="press underline underline-offset-4" onClick={() => onTake(rule)}>
            Take <span className="sr-only">{rule.name}</span>
          </button>
        </li>
      ))}
    </ul>
  </details>
);

/** The raw counts that end a suggestion's working. */
function Raw({ of }: { of: Suggested['start'] }) {
  const last = of.steps.at(-1);
  return <span className="num">{last?.unit === 'counts' ? last.value : '–'}</span>;
}
