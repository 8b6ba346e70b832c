import { heardNow } from '../../../../links/heardNow.ts';
import { reservoirOf } from '@plain-trowel/core/dosing/reservoir';
import { workDaysLeft, workVolumeIn } from '@plain-trowel/core/dosing/workWater';
import { TankPicture } from './TankPicture.tsx';
import { tankNow } from '@plain-trowel/core/garden/bind/plotFacts';
import type { Reservoir } from '@plain-trowel/core/garden/document/schema';
import { formatVolume } from '@plain-trowel/core/quantity/format';
import { WorkedNumber } from '../../../../frame/WorkedNumber.tsx';
import { useLive, useLiveTools } from '../../../../links/liveContext.ts';
import { litresText } from '../../../../words/unitText.ts';

/** What a reservoir holds now, how long it lasts, and whether its lines may run. */
export function ReservoirHead({ tank, usedMlPerDay }: { tank: Reservoir; usedMlPerDay: number }) {
  const live = useLive();
  const { session } = useLiveTools();
  const hands = live.source?.hands ?? null;
  const present = tank.channelId === null ? undefined : live.present.get(tank.channelId);
  const now = tankNow(tank, heardNow(live));
  const curve = reservoirOf(tank.levels);
  const days = now?.volumeMl == null ? null : workDaysLeft(now.volumeMl, tank.minimumMl, usedMlPerDay);
  const fill = (share: number) => {
    hands?.fill(tank.id, share);
    session.refresh();
  };
  return (
    <div className="flex flex-wrap gap-x-8 gap-y-2">
      {now !== null && now.volumeMl !== null && curve.ok && (
        <TankPicture
          tank={tank}
          volumeMl={now.volumeMl}
          fullMl={curve.value.fullMl}
          usedMlPerDay={usedMlPerDay}
        />
      )}
      <div className="min-w-[240px] flex-1">
        <h2>{tank.name}</h2>
        {now === null ? (
          <p className="mt-1 max-w-[68ch]">
            {tank.channelId === null
              ? 'No channel reads its level, so it is unknown.'
              : tank.kind === 'level' && !curve.ok
                ? 'It needs two known levels at least, such as empty and full.'
                : 'Nothing reads it right now, or what it reads lies far beyond its levels.'}{' '}
            While a line draws from it and its water is unknown, the line does not run.
          </p>
        ) : now.volumeMl === null ? (
          <p className="mt-1 text-[17px]">
            {now.isLow ? (
              <b className="font-semibold text-handle">The float says empty: its lines do not run.</b>
            ) : (
              'The float says there is water.'
            )}
          </p>
        ) : (
          <p className="mt-1 text-[17px]">
            {curve.ok && present && (
              <WorkedNumber
                id={`tank ${tank.id}`}
                lead
                worked={workVolumeIn(curve.value, present.rawCounts)}
                shown={litresText(now.volumeMl)}
                className="text-[24px]"
              />
            )}{' '}
            of {litresText(curve.ok ? curve.value.fullMl : 0)} left.{' '}
            {now.isLow ? (
              <b className="font-semibold text-handle">Below its minimum: its lines do not run.</b>
            ) : days ? (
              <>
                At <span className="num">{formatVolume(usedMlPerDay)}</span> a day that lasts{' '}
                <WorkedNumber id={`days ${tank.id}`} worked={days} />.
              </>
            ) : (
              'Nothing was taken in the last week, so how long it will last is not known.'
            )}
          </p>
        )}
        {hands && (
          <p className="mt-1 flex flex-wrap gap-x-5 text-[14px]">
            <span className="text-soft">Stand-in tank:</span>
            {(
              [
                ['fill it', 1],
                ['half', 0.5],
                ['nearly empty', 0.06],
              ] as const
            ).map(([label, share]) => (
              <button
                key={label}
                type="button"
                className="press underline underline-offset-4"
                onClick={() => fill(share)}
              >
                {label}
                <span className="sr-only">, {tank.name}</span>
              </button>
            ))}
          </p>
        )}
      </div>
    </div>
  );
}
