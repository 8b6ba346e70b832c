import { differences } from '@plain-trowel/core/garden/document/differences';
import type { Garden } from '@plain-trowel/core/garden/document/schema';
import { useGarden } from '../../../../data/gardenContext.ts';
import { Scroll } from '../../../../ui/Scroll.tsx';
import { differencePlace, valueText } from '../../../../words/differenceText.ts';

const SHOWN = 40;

/** Both sides beside each other: what stands here, and what was published. */
export function WhatDiffers({ published }: { published: Garden }) {
  const { garden } = useGarden();
  const all = differences(garden, published);
  if (all.length === 0)
    return <p className="w-full text-[14px]">Both say the same; only how they are written differs.</p>;
  return (
    <Scroll label="What differs" className="w-full">
      <table className="w-full text-[14px]">
        <thead>
          <tr>
            <th>What</th>
            <th>Here</th>
            <th>At the gateway</th>
          </tr>
        </thead>
        <tbody>
          {all.slice(0, SHOWN).map((one, at) => {
            const field = one.path.at(-1) ?? '';
            const place = differencePlace(one);
            return (
              <tr key={`${at} ${place}`}>
                <td>{place}</td>
                <td className="num">{valueText(one.here, field, garden.timeZone)}</td>
                <td className="num">{valueText(one.there, field, garden.timeZone)}</td>
              </tr>
            );
          })}
        </tbody>
      </table>
      {all.length > SHOWN && <p className="mt-1 text-[14px] text-soft">and {all.length - SHOWN} more</p>}
    </Scroll>
  );
}
