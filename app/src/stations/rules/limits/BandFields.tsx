import { setBandEdges } from '@plain-trowel/core/garden/edits/plots';
import { type PlotParts } from '@plain-trowel/core/garden/bind/plotParts';
import { BAND_NAMES, checkEdges, type BandEdges } from '@plain-trowel/core/quantity/bands';
import { percentUnit } from '@plain-trowel/core/quantity/percentKind';
import { useGarden } from '../../../data/gardenContext.ts';
import { NumberField } from '../../../ui/NumberField.tsx';
import { edgeText } from '../../../words/issueText.ts';

/** Where one word gives way to the next. The bands tile the scale by construction: there are only edges between them. */
export function BandFields({ parts, noiseTenths }: { parts: PlotParts; noiseTenths: number }) {
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
  return (
    <details className="mt-4 border-t border-rule pt-2">
      <summary className="press py-1 font-semibold">
        Words of this plot: where dry, low, right, wet and flooded meet
      </summary>
      <p className="mt-1 max-w-[66ch] text-[14px] text-soft">
        These begin as a cautious guess for a plant that nothing is known of. Look at the plant, then move
        them here, or by their grips on the ruler. A word is never narrower than twice the noise.
      </p>
      <div className="mt-2 grid grid-cols-2 gap-x-5 gap-y-3 sm:grid-cols-4">
        {plot.bandEdges.map((edge, at) => (
          <NumberField
            key={BAND_NAMES[at]}
            label={`${BAND_NAMES[at] ?? ''} up to`}
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
        ))}
      </div>
    </details>
  );
}
