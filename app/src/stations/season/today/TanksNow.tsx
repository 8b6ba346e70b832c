import { tankNow } from '@plain-trowel/core/garden/bind/plotFacts';
import { useGarden } from '../../../data/gardenContext.ts';
import { heardNow } from '../../../links/heardNow.ts';
import { useLive } from '../../../links/liveContext.ts';
import { litresText } from '../../../words/unitText.ts';

/** What the reservoirs hold, in one line. */
export function TanksNow() {
  const { garden } = useGarden();
  const live = useLive();
  if (garden.reservoirs.length === 0) return null;
  const heard = heardNow(live);
  return (
    <p className="text-soft">
      {garden.reservoirs
        .map((tank) => {
          const now = tankNow(tank, heard);
          const holds =
            now === null
              ? 'nobody knows what it holds'
              : now.volumeMl === null
                ? now.isLow
                  ? 'below its minimum'
                  : 'above its minimum'
                : litresText(now.volumeMl);
          return `${tank.name}: ${holds}`;
        })
        .join(' · ')}
    </p>
  );
}
