import { joinWords, setBandEdges, setPlot } from '@plain-trowel/core/garden/edits/plots';
import { type PlotParts } from '@plain-trowel/core/garden/bind/plotParts';
import { BAND_NAMES, checkEdges, type BandEdges, type WordSchool } from '@plain-trowel/core/quantity/bands';
import { percentUnit } from '@plain-trowel/core/quantity/percentKind';
import { useGarden } from '../../../data/gardenContext.ts';
import { Button } from '../../../ui/Button.tsx';
import { Choice } from '../../../ui/Choice.tsx';
import { NumberField } from '../../../ui/NumberField.tsx';
import { edgeText } from '../../../words/issueText.ts';

const SCHOOLS: readonly { readonly value: WordSchool; readonly label: string }[] = [
  { value: 'five', label: 'dry, low, right, wet, flooded' },
  { value: 'three', label: 'too dry, good, too wet' },
];

/** In which words a plot speaks, and where one gives way to the next: with the limits, unless a person sets them apart. */
export function BandFields({
  parts,
  noiseTenths,
  isApart,
}: {
  parts: PlotParts;
  noiseTenths: number;
  isApart: boolean;
}) {
  const { commit } = useGarden();
  const { plot } = parts;
  const setSchool = (words: WordSchool) =>
    void commit(`words of ${plot.name}`, (garden) => ({ garden: setPlot(garden, plot.id, { words }) }));
  return (
    <section aria-label="Words of this plot" className="mt-4 border-t border-rule pt-3">
      <h2>Words of this plot</h2>
      <div className="mt-1.5">
        <Choice legend="Words" options={SCHOOLS} value={plot.words} onChange={setSchool} />
      </div>
      {isApart ? (
        <div className="mt-2 flex flex-wrap items-center gap-x-4 gap-y-2 border-l-[3px] border-chaff pl-3">
          <p className="max-w-[56ch] text-[14.5px]">
            <b className="font-semibold">The words stand apart from the limits.</b> Lamp, alerts and labels go
            by the words, the pump by the limits.
          </p>
          <Button
            onClick={() =>
              void commit(`words of ${plot.name} with its limits`, (garden) => ({
                garden: joinWords(garden, plot.id),
              }))
            }
          >
            Put them back with the limits
          </Button>
        </div>
      ) : (
        <p className="mt-1.5 max-w-[66ch] text-[14px] text-soft">
          {plot.words === 'three'
            ? 'Good is from start to stop, too dry below, too wet above. Lamp, alerts and labels say the same words.'
            : 'Right is from start to stop, wet above it, flooded above what the soil can hold; low and dry lie below start. Lamp, alerts and labels say the same words.'}
        </p>
      )}
      <EdgeFields parts={parts} noiseTenths={noiseTenths} />
    </section>
  );
}

/** Every edge as a number, for who wants the words elsewhere. */
function EdgeFields({ parts, noiseTenths }: { parts: PlotParts; noiseTenths: number }) {
  const { commit } = useGarden();
  const { plot } = parts;
  const withEdge = (at: number, percent: number): BandEdges => {
    const [a, b, c, d] = plot.bandEdges.map((edge, index) =>
      index === at ? Math.round(percent * 10) : edge,
    );
    return [a ?? 0, b ?? 0, c ?? 0, d ?? 0];
  };
  const check = (at: number) => (percent: number) => {
    const issue = checkEdges(withEdge(at, percent), noiseTenths);
    return issue && edgeText(issue);
  };
  const names = plot.words === 'three' ? [null, 'too dry up to', 'good up to', null] : null;
  return (
    <details className="mt-2">
      <summary className="press py-1 font-semibold">Where one word gives way to the next</summary>
      <p className="mt-1 max-w-[66ch] text-[14px] text-soft">
        A word is never narrower than twice the noise. “Right” set elsewhere than between the limits stays
        there when those are moved.
      </p>
      <div className="mt-2 grid grid-cols-2 gap-x-5 gap-y-3 sm:grid-cols-4">
        {plot.bandEdges.map((edge, at) => {
          const label = names ? names[at] : `${BAND_NAMES[at] ?? ''} up to`;
          return label == null ? null : (
            <NumberField
              key={BAND_NAMES[at]}
              label={label}
              unit={percentUnit(parts.fit?.percentKind ?? 'span')}
              value={edge / 10}
              decimals={1}
              least={0}
              most={100}
              whole={false}
              check={check(at)}
              onKeep={(percent) =>
                void commit(`words of ${plot.name}`, (garden) => ({
                  garden: setBandEdges(garden, plot.id, withEdge(at, percent)),
                }))
              }
            />
          );
        })}
      </div>
    </details>
  );
}
