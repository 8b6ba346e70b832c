import { useMemo } from 'react';
import { boardSleeps } from '@plain-trowel/core/sketch/boardSleeps';
import { Scroll } from '../../../ui/Scroll.tsx';
import { workAverage, type StateUse } from '@plain-trowel/core/power/battery';
import { habitsOf } from '@plain-trowel/core/power/planBattery';
import { supplyBudget } from '@plain-trowel/core/power/budget';
import { batteryDays } from '@plain-trowel/core/power/comparePowering';
import { coldFrac, CHEMISTRIES } from '@plain-trowel/core/power/battery';
import { workDarkDays, workPanel } from '@plain-trowel/core/power/solar';
import { fuseFor } from '@plain-trowel/core/electrics/fuse';
import { formatNumber } from '@plain-trowel/core/quantity/format';
import type { Worked } from '@plain-trowel/core/quantity/worked';
import { loadOfSupply } from '@plain-trowel/core/wiring/supplyLoad';
import { spotAt } from '@plain-trowel/core/wiring/circuit';
import { partsWith } from '@plain-trowel/core/wiring/look';
import { useGarden } from '../../../data/gardenContext.ts';
import { WorkedNumber } from '../../../frame/WorkedNumber.tsx';
import { CellNumber } from '../../../ui/CellNumber.tsx';
import { sumText } from '../../../words/sumText.ts';
import type { usePlan } from '../usePlan.ts';
import { PoweringTable } from './PoweringTable.tsx';
import { Sleepers } from './Sleepers.tsx';
import { SupplyFields } from './SupplyFields.tsx';

type PlanTools = ReturnType<typeof usePlan>;
const MONTHS = [
  'January',
  'February',
  'March',
  'April',
  'May',
  'June',
  'July',
  'August',
  'September',
  'October',
  'November',
  'December',
];

/** What the wiring takes in a day, how long a battery lasts with it, and what panel and fuse it wants. */
export function PowerView({ plan }: { plan: PlanTools }) {
  const { garden } = useGarden();
  const sleepers = useMemo(() => boardSleeps(garden), [garden]);
  const wanted = habitsOf(plan.circuit, plan.plan.supply);
  const habits = {
    ...wanted,
    everyS: Math.min(wanted.everyS, ...sleepers.flatMap(({ sleep }) => sleep?.everyS ?? [])),
  };
  const budget = supplyBudget(plan.circuit, habits, {
    staysAwake: new Set(sleepers.flatMap(({ sleep, partId }) => (sleep ? [] : (partId ?? [])))),
    awakeS: Math.max(0, ...sleepers.map(({ sleep }) => sleep?.usualS ?? 0)),
  });
  const average = workAverage(budget.uses);
  const days = batteryDays(average.value, habits);
  const usableMah =
    habits.capacityMah *
    habits.usableFrac *
    coldFrac(habits.temperatureC, CHEMISTRIES[habits.chemistry].perCFrac);
  const panel =
    habits.latitudeDeg === null
      ? null
      : workPanel({
          ...habits,
          latitudeDeg: habits.latitudeDeg,
          averageMa: average.value,
          systemV: habits.batteryV,
        });
  if (plan.wiring.parts.length === 0)
    return (
      <p>
        The current of each state, battery life, panel and fuse will appear here. First lay the parts out
        under Questions.
      </p>
    );
  return (
    <>
      <dl className="mb-4 grid grid-cols-2 gap-x-6 gap-y-3 sm:grid-cols-4">
        <Answer name="On average, at the battery" id="average" worked={average} lead />
        <Answer name="Battery alone lasts" id="days" worked={days} />
        <div>
          <dt className="label">Panel for the worst month</dt>
          <dd className="text-[19px]">
            {panel === null ? (
              <span className="text-[14px]">set the latitude below</span>
            ) : (
              <Panel panel={panel} />
            )}
          </dd>
        </div>
        <Fuse plan={plan} />
      </dl>
      <Sleepers all={sleepers} everyS={wanted.everyS} />
      {budget.missing.length > 0 && (
        <p className="mb-3 border-l-2 border-handle pl-3 text-[14px]">
          Not counted, because their current is not known: {budget.missing.join(', ')}. The real use is
          higher.
        </p>
      )}
      {budget.overfull && (
        <p className="mb-3 border-l-2 border-handle pl-3 text-[14px]">
          The states add up to more than a day. Read less often, or shorten a state.
        </p>
      )}
      <h2 className="border-t border-ink pt-3">A day, state by state</h2>
      <StateTable plan={plan} uses={budget.uses} />
      <SupplyFields plan={plan} />
      <DarkDays dark={workDarkDays(usableMah, average.value)} wanted={habits.darkDays} />
      <PoweringTable plan={plan} />
    </>
  );
}

function Answer({
  name,
  id,
  worked,
  lead = false,
}: {
  name: string;
  id: string;
  worked: Worked;
  lead?: boolean;
}) {
  return (
    <div>
      <dt className="label">{name}</dt>
      <dd>
        <WorkedNumber id={id} worked={worked} lead={lead} className="text-[19px] font-semibold" />
      </dd>
    </div>
  );
}

function Panel({ panel }: { panel: Worked }) {
  const day = panel.steps[0]?.inputs.day?.value ?? 15;
  const month = MONTHS[Math.min(11, Math.floor((day - 1) / 30.5))];
  return Number.isFinite(panel.value) ? (
    <>
      <WorkedNumber id="panel" worked={panel} className="font-semibold" />
      <span className="text-[13.5px] text-soft"> in {month}</span>
    </>
  ) : (
    <span className="text-[14px]">the sun does not rise in {month}: no panel is large enough</span>
  );
}

/** The main fuse, from everything on at once and the thinnest thick cable behind the battery. */
function Fuse({ plan }: { plan: PlanTools }) {
  const [battery] = partsWith(plan.circuit, 'battery', 'supply');
  const plus = battery && (spotAt(battery, 'plus') ?? spotAt(battery, 'out'));
  const load = plus ? loadOfSupply(plan.circuit, plus) : null;
  const fuse = load && load.ma > 0 ? fuseFor({ currentMa: load.ma, areaMm2: 1.5 }) : null;
  return (
    <div>
      <dt className="label">Fuse, on 1.5 mm²</dt>
      <dd className="text-[19px]">
        {fuse === null ? (
          <span className="text-[14px]">nothing is connected to a supply yet</span>
        ) : fuse.ok ? (
          <WorkedNumber id="fuse" worked={fuse.value.worked} className="font-semibold" />
        ) : (
          <span className="text-[14px]">{sumText(fuse.issue)}</span>
        )}
      </dd>
    </div>
  );
}

const STATE_WORDS: Readonly<Record<StateUse['state'], string>> = {
  sleep: 'rest of the day',
  wake: 'awake',
  measure: 'probes powered to be read',
  radio: 'on the air',
  pump: 'watering',
};

function StateTable({ plan, uses }: { plan: PlanTools; uses: readonly StateUse[] }) {
  const charge = (one: StateUse) => (one.currentMa * one.secondsPerDay) / 3600;
  const total = uses.reduce((sum, one) => sum + charge(one), 0);
  const keep = (state: StateUse['state'], key: 'currentMa' | 'secondsPerDay', value: number | null) =>
    void plan.changePlan(`supply: ${state}`, ({ supply }) => ({
      supply: { ...supply, [state]: { ...supply[state], [key]: value } },
    }));
  return (
    <Scroll label="A day, state by state">
      <table>
        <thead>
          <tr>
            <th>State</th>
            <th className="text-right">Current mA</th>
            <th className="text-right">Seconds a day</th>
            <th className="text-right">mAh a day</th>
            <th className="w-[30%]">Share</th>
          </tr>
        </thead>
        <tbody>
          {uses.map((one) => {
            const share = total > 0 ? charge(one) / total : 0;
            const own = plan.plan.supply[one.state];
            return (
              <tr key={one.state}>
                <td>
                  {one.state}
                  <span className="block text-[12.5px] text-soft">
                    {STATE_WORDS[one.state]}
                    {(own.currentMa !== null || own.secondsPerDay !== null) &&
                      ', your own figure; empty it for the parts’'}
                  </span>
                </td>
                <td className="text-right">
                  <CellNumber
                    label={`Current in ${one.state}, mA`}
                    value={one.currentMa}
                    least={0}
                    most={100_000}
                    decimals={2}
                    onKeep={(value) => keep(one.state, 'currentMa', value)}
                  />
                </td>
                <td className="text-right">
                  {one.state === 'sleep' ? (
                    <span className="num">{formatNumber(one.secondsPerDay)}</span>
                  ) : (
                    <CellNumber
                      label={`Time in ${one.state}, s a day`}
                      value={one.secondsPerDay}
                      least={0}
                      most={86_400}
                      decimals={1}
                      onKeep={(value) => keep(one.state, 'secondsPerDay', value)}
                    />
                  )}
                </td>
                <td className="num text-right">{formatNumber(charge(one), 1)}</td>
                <td>
                  <svg
                    role="img"
                    aria-label={`${formatNumber(share * 100)} % of the day’s charge`}
                    className="h-4 w-full"
                    preserveAspectRatio="none"
                    viewBox="0 0 100 10"
                  >
                    <rect width="100" height="10" fill="var(--paper-2)" />
                    <rect width={share * 100} height="10" fill="var(--steel)" />
                  </svg>
                  <span className="num text-[12.5px]">{formatNumber(share * 100, 1)} % of the charge</span>
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </Scroll>
  );
}

function DarkDays({ dark, wanted }: { dark: Worked; wanted: number }) {
  return (
    <p className="mt-4">
      Without any sun it goes on for <WorkedNumber id="dark" worked={dark} className="font-semibold" />
      {dark.value >= wanted
        ? `, more than the ${formatNumber(wanted)} you asked for.`
        : `; you asked for ${formatNumber(wanted)}. A larger battery, a longer interval or a board that sleeps will get you there.`}
    </p>
  );
}
