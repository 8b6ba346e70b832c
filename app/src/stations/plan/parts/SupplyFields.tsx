import { CHEMISTRIES, CHEMISTRY_NAMES, type Chemistry } from '@plain-trowel/core/power/battery';
import { habitsOf, planBattery } from '@plain-trowel/core/power/planBattery';
import type { SupplyHabits } from '@plain-trowel/core/power/habits';
import { Check } from '../../../ui/Check.tsx';
import { Field } from '../../../ui/Field.tsx';
import { NumberField } from '../../../ui/NumberField.tsx';
import type { usePlan } from '../usePlan.ts';

/** The habits that the budget rests on: interval, sleep, battery, place. */
export function SupplyFields({ plan }: { plan: ReturnType<typeof usePlan> }) {
  const battery = planBattery(plan.circuit);
  const supply = habitsOf(plan.circuit, plan.plan.supply);
  const set = (change: Partial<SupplyHabits>) =>
    void plan.changePlan('supply', (held) => ({ supply: { ...held.supply, ...change } }));
  const setChemistry = (chemistry: Chemistry) => {
    const { usableFrac, selfDischargePerMonthFrac } = CHEMISTRIES[chemistry];
    set({ chemistry, usableFrac, selfDischargePerMonthFrac });
  };
  const coldCare = !CHEMISTRIES[supply.chemistry].chargesBelowZero && supply.temperatureC < 3;
  return (
    <>
      <div className="mt-4 grid grid-cols-2 gap-x-5 gap-y-3 md:grid-cols-4">
        <NumberField
          label="A reading every"
          unit="s"
          whole
          value={supply.everyS}
          least={1}
          most={86_400}
          onKeep={(everyS) => set({ everyS })}
        />
        <NumberField
          label="Pump or valve runs"
          unit="s a day"
          whole
          value={supply.waterS}
          least={0}
          most={86_400}
          onKeep={(waterS) => set({ waterS })}
        />
        <Check
          className="self-end pb-2 md:col-span-2"
          checked={supply.sleeps}
          onChange={(sleeps) => set({ sleeps })}
        >
          The boards sleep between readings
        </Check>
        {battery ? (
          <div>
            <p className="label">Battery of the plan</p>
            <p>
              {battery.label}: {battery.chemistry}, <span className="num">{battery.capacityMah} mAh</span>,{' '}
              <span className="num">{battery.batteryV} V</span>
            </p>
            <p className="text-[13.5px] text-soft">Change it at its part under Wiring.</p>
          </div>
        ) : (
          <>
            <Field label="Battery">
              {(props) => (
                <select
                  {...props}
                  value={supply.chemistry}
                  onChange={(event) => setChemistry(event.target.value as Chemistry)}
                >
                  {CHEMISTRY_NAMES.map((name) => (
                    <option key={name}>{name}</option>
                  ))}
                </select>
              )}
            </Field>
            <NumberField
              label="Its capacity"
              unit="mAh"
              whole
              value={supply.capacityMah}
              least={1}
              most={1e7}
              onKeep={(capacityMah) => set({ capacityMah })}
            />
            <NumberField
              label="Its voltage"
              unit="V"
              whole={false}
              value={supply.batteryV}
              least={1}
              most={60}
              onKeep={(batteryV) => set({ batteryV })}
            />
          </>
        )}
        <NumberField
          label="May be used"
          unit="% of capacity"
          whole
          value={Math.round(supply.usableFrac * 100)}
          least={5}
          most={100}
          onKeep={(percent) => set({ usableFrac: percent / 100 })}
        />
        <NumberField
          label="Loses by itself"
          unit="% a month"
          whole={false}
          value={supply.selfDischargePerMonthFrac * 100}
          least={0}
          most={90}
          onKeep={(percent) => set({ selfDischargePerMonthFrac: percent / 100 })}
        />
        <NumberField
          label="Coldest usual day"
          unit="°C"
          whole={false}
          value={supply.temperatureC}
          least={-40}
          most={60}
          onKeep={(temperatureC) => set({ temperatureC })}
        />
        <NumberField
          label="Days to bridge"
          unit="days"
          whole
          value={supply.darkDays}
          least={0}
          most={60}
          onKeep={(darkDays) => set({ darkDays })}
        />
        <LatitudeField value={supply.latitudeDeg} onKeep={(latitudeDeg) => set({ latitudeDeg })} />
        <NumberField
          label="Altitude"
          unit="m"
          whole
          value={supply.altitudeM}
          least={-400}
          most={6000}
          onKeep={(altitudeM) => set({ altitudeM })}
        />
        <NumberField
          label="Clearness, worst month"
          unit="% of a clear day"
          whole
          value={Math.round(supply.clearness * 100)}
          least={5}
          most={100}
          onKeep={(percent) => set({ clearness: percent / 100 })}
        />
        <NumberField
          label="Left after the chain"
          unit="% of the sun’s"
          whole
          value={Math.round(supply.chainFrac * 100)}
          least={5}
          most={100}
          onKeep={(percent) => set({ chainFrac: percent / 100 })}
        />
      </div>
      {coldCare && (
        <p className="mt-2 border-l-2 border-handle pl-3 text-[14px]">
          A lithium battery must not be charged below 0 °C: keep it indoors in the cold, or take lead-acid
          outside.
        </p>
      )}
    </>
  );
}

/** The garden's latitude; it stays empty until someone sets it. */
function LatitudeField({ value, onKeep }: { value: number | null; onKeep: (value: number) => void }) {
  return (
    <NumberField
      label="Latitude, north +"
      unit="°"
      whole={false}
      value={value ?? 0}
      least={-90}
      most={90}
      onKeep={onKeep}
    />
  );
}
