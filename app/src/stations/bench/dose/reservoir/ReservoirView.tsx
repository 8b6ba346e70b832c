import { MOST } from '@plain-trowel/core/quantity/bounds';
import { useQuery } from '@tanstack/react-query';
import { addReservoir } from '@plain-trowel/core/garden/edits/reservoirs';
import { setWaterLine } from '@plain-trowel/core/garden/edits/plots';
import type { Reservoir, WaterLine } from '@plain-trowel/core/garden/document/schema';
import { useMemo } from 'react';
import { waterQuery } from '../../../../data/queries.ts';
import { useGarden } from '../../../../data/gardenContext.ts';
import { useLive } from '../../../../links/liveContext.ts';
import { AddButton } from '../../../../ui/AddButton.tsx';
import { LevelTable } from './LevelTable.tsx';
import { ReservoirHead } from './ReservoirHead.tsx';
import { ReservoirSettings } from './ReservoirSettings.tsx';

const DAY_MS = 86_400_000;
const WEEK_DAYS = 7;

/** What is left in the reservoirs of the garden; the one that this line draws from stands first. */
export function ReservoirView({ line }: { line: WaterLine | null }) {
  const { garden, commit } = useGarden();
  const sorted = [...garden.reservoirs].sort(
    (a, b) => Number(b.id === line?.tankId) - Number(a.id === line?.tankId),
  );
  const add = () =>
    void commit('add a reservoir', (before) => {
      const added = addReservoir(before, `Reservoir ${before.reservoirs.length + 1}`, Math.random);
      return { garden: added };
    });
  return (
    <>
      {sorted.length === 0 && (
        <p className="max-w-[68ch] text-[16px]">
          No reservoir is described. With a distance sensor above the water, a level probe or a float switch,
          the board stops its pump before it runs dry, and this sheet shows how many days are left.
        </p>
      )}
      {sorted.length > 0 && (
        <p className="mb-3 max-w-[70ch] text-[14px] text-soft">
          An outlet that lies below the water of its tank goes on running when the pump has stopped: lead it
          over a point above the tank, or give it a hole that lets air in. The board cannot stop that.
        </p>
      )}
      {sorted.map((tank) => (
        <ReservoirOf key={tank.id} tank={tank} line={line} />
      ))}
      <AddButton
        count={sorted.length}
        most={MOST.reservoirs}
        what="reservoirs"
        className="mt-4"
        look={sorted.length === 0 ? 'primary' : 'plain'}
        onClick={add}
      >
        Add a reservoir
      </AddButton>
    </>
  );
}

function ReservoirOf({ tank, line }: { tank: Reservoir; line: WaterLine | null }) {
  const { commit } = useGarden();
  const usedMlPerDay = useUse(tank.id);
  return (
    <section aria-label={tank.name} className="border-b border-rule pb-4 not-first:mt-4">
      <ReservoirHead tank={tank} usedMlPerDay={usedMlPerDay} />
      {line && line.tankId !== tank.id && (
        <p className="mt-1 text-[14.5px]">
          {line.name} does not draw from it.{' '}
          <button
            type="button"
            className="press underline underline-offset-4"
            onClick={() =>
              void commit(`${line.name} draws from ${tank.name}`, (garden) => ({
                garden: setWaterLine(garden, line.id, { tankId: tank.id }),
              }))
            }
          >
            It does
          </button>
        </p>
      )}
      <ReservoirSettings tank={tank} />
      {tank.kind === 'level' && <LevelTable tank={tank} />}
    </section>
  );
}

/** What the lines on a reservoir took a day in the last week, by the log, ml. A log younger than a week is divided by its own days. */
function useUse(tankId: string): number {
  const { garden } = useGarden();
  const toMs = useLive(({ nowMs }) => Math.ceil(nowMs / 3_600_000) * 3_600_000);
  const fromMs = toMs - WEEK_DAYS * DAY_MS;
  const { data } = useQuery(waterQuery(garden.id, fromMs, toMs));
  return useMemo(() => {
    if (!data) return 0;
    const days = Math.min(WEEK_DAYS, Math.max(1, (toMs - data.firstMs) / DAY_MS));
    const isOnly = (one: WaterLine) =>
      garden.waterLines.every((other) => other.id === one.id || other.plotId !== one.plotId);
    return garden.waterLines
      .filter((one) => one.tankId === tankId)
      .reduce((sum, one) => sum + data.ofLineMl(one.id, isOnly(one) ? one.plotId : null) / days, 0);
  }, [data, garden.waterLines, tankId, toMs]);
}
