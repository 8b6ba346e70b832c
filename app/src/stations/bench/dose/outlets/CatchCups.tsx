import { MOST } from '@plain-trowel/core/quantity/bounds';
import { useTyped } from '../../../../ui/useTyped.ts';
import { evennessOf } from '@plain-trowel/core/dosing/outlets';
import { workEvenness, workRain } from '@plain-trowel/core/dosing/workWater';
import { setWaterLine } from '@plain-trowel/core/garden/edits/plots';
import type { WaterLine } from '@plain-trowel/core/garden/document/schema';
import { readNumber } from '@plain-trowel/core/signal/numberText';
import { formatDuration } from '@plain-trowel/core/quantity/format';
import { useGarden } from '../../../../data/gardenContext.ts';
import { WorkedNumber } from '../../../../frame/WorkedNumber.tsx';
import { Field } from '../../../../ui/Field.tsx';
import { NumberField } from '../../../../ui/NumberField.tsx';

const NEW_CUPS = { areaCm2: 40, minutes: 10, volumesMl: [] };
const TARGET_MM = 5;

/** Numbers typed with spaces, semicolons or line breaks between them; null when one of them is none. */
function volumesOf(typed: string): number[] | null {
  const words = typed.split(/[\s;]+/).filter((word) => word !== '');
  const read = words.map((word) => readNumber(word.replace(',', '.')));
  const all = read.flatMap((one) =>
    one.kind === 'number' && one.value >= 0 && one.value <= 1e5 ? [one.value] : [],
  );
  return all.length === words.length && all.length <= MOST.cups ? all : null;
}

/** Catch cups under a sprinkler: how many mm a minute, how even, and how long for five millimetres. */
export function CatchCups({ line }: { line: WaterLine }) {
  const { commit } = useGarden();
  const { typed, type, drop, handOver } = useTyped();
  const cups = line.cups ?? NEW_CUPS;
  const even = evennessOf(cups.volumesMl);
  const volumes = typed === null ? null : volumesOf(typed);
  const set = (change: Partial<NonNullable<WaterLine['cups']>>) =>
    void commit(`catch cups of ${line.name}`, (garden) => ({
      garden: setWaterLine(garden, line.id, { cups: { ...cups, ...change } }),
    }));
  const keep = () => {
    if (typed === null || volumes === null) return;
    handOver();
    if (volumes.join() !== cups.volumesMl.join()) set({ volumesMl: volumes });
  };
  const rain = even && workRain(even.meanMl, cups.areaCm2, cups.minutes);
  return (
    <details className="mt-4 border-t border-rule pt-2" open={cups.volumesMl.length > 0}>
      <summary className="press py-1 font-semibold">A sprinkler: catch cups, mm per minute</summary>
      <p className="mt-1 max-w-[68ch] text-[14px] text-soft">
        Set out a dozen equal cups across the zone, run it on a still morning, and type what each one caught.
      </p>
      {even && rain && (
        <p className="mt-1">
          It rains <WorkedNumber id="rain" worked={rain} /> on average, and the driest quarter gets{' '}
          <WorkedNumber id="cup-evenness" worked={workEvenness(even)} />; {TARGET_MM} mm take{' '}
          <b className="num font-semibold">{formatDuration((60 * TARGET_MM) / rain.value)}</b>.
        </p>
      )}
      <div className="mt-2 grid grid-cols-2 gap-x-5 gap-y-3 sm:grid-cols-4">
        <NumberField
          label="Mouth of a cup"
          unit="cm²"
          value={cups.areaCm2}
          least={1}
          most={5000}
          whole={false}
          onKeep={(areaCm2) => set({ areaCm2 })}
        />
        <NumberField
          label="It ran for"
          unit="min"
          value={cups.minutes}
          least={0.1}
          most={600}
          whole={false}
          onKeep={(minutes) => set({ minutes })}
        />
        <Field
          label="In the cups, ml"
          className="col-span-2"
          hint="One number for each cup, with spaces between."
          error={
            typed !== null && volumes === null
              ? 'Type numbers with spaces between, at most a hundred.'
              : undefined
          }
        >
          {(props) => (
            <input
              {...props}
              className="field num w-full"
              value={typed ?? cups.volumesMl.join(' ')}
              onChange={(event) => type(event.target.value)}
              onBlur={keep}
              onKeyDown={(event) => {
                if (event.key === 'Enter') keep();
                if (event.key === 'Escape') drop();
              }}
            />
          )}
        </Field>
      </div>
    </details>
  );
}
