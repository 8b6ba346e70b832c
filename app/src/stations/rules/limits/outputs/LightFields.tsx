import { sunOf, placeOf } from '@plain-trowel/core/garden/bind/sun';
import type { Contact, ContactRule } from '@plain-trowel/core/garden/document/contactSchema';
import { changePlan } from '@plain-trowel/core/garden/edits/plan';
import { localTimeIn } from '@plain-trowel/core/quantity/localTime';
import { useGarden } from '../../../../data/gardenContext.ts';
import { useLive } from '../../../../links/liveContext.ts';
import { Check } from '../../../../ui/Check.tsx';
import { NumberField } from '../../../../ui/NumberField.tsx';
import { minuteText } from '@plain-trowel/core/quantity/timeText';
import { CONDITION_ROWS, ConditionRow, SensorChoice } from '../program/ConditionRow.tsx';
import { EdgeField } from './EdgeField.tsx';
import { LightDay } from './LightDay.tsx';
import { useContact } from './useContact.ts';

type LightRule = Extract<ContactRule, { kind: 'light' }>;
const FIRST_CELL = { darkBelow: 300, brightAbove: 900 };

/** When a grow light is lit: its hours, the sun, a light cell. */
export function LightFields({ contact, rule }: { contact: Contact; rule: LightRule }) {
  const { problem, keep } = useContact(contact);
  const set = (change: Partial<LightRule>) => keep('hours', { rule: { ...rule, ...change } });
  const wrong = problem('hours');
  return (
    <>
      <section aria-label={`Hours of ${contact.name}`} className="mt-4 border-t border-rule pt-3">
        <h2>Lit</h2>
        <div data-said="hours" className="mt-2 flex flex-wrap gap-x-8 gap-y-3">
          <EdgeField label="From" edge={rule.from} onKeep={(from) => set({ from })} />
          <EdgeField label="Until" edge={rule.to} onKeep={(to) => set({ to })} />
        </div>
        <LightDay contact={contact} />
        {wrong && (
          <p role="alert" className="mt-1 max-w-[68ch] text-[13px] font-medium text-handle">
            {wrong}
          </p>
        )}
        {(rule.from.by !== 'clock' || rule.to.by !== 'clock') && <Sun contact={contact} />}
      </section>
      <Cell contact={contact} rule={rule} set={set} />
      <p className="mt-3 max-w-[68ch] border-l-2 border-handle pl-3 text-[14px]">
        A lamp on the mains only behind a ready-made, certified switched plug with residual-current
        protection: nothing on the mains side is opened or wired. Keep it where no water drips, and ask a
        licensed electrician where your local code does.
      </p>
    </>
  );
}

/** Today's sunrise and sunset, and where they are reckoned for. */
function Sun({ contact }: { contact: Contact }) {
  const { garden, commit } = useGarden();
  const { problem } = useContact(contact);
  const dayMs = useLive(({ nowMs }) => Math.floor(nowMs / 3_600_000) * 3_600_000);
  const place = placeOf(garden);
  const sun = sunOf(garden, localTimeIn(garden.timeZone))(dayMs);
  const setPlace = (change: { latitudeDeg: number } | { longitudeDeg: number }) =>
    void commit('place of the garden', (before) => ({
      garden: changePlan(before, { supply: { ...before.plan.supply, ...change } }),
    }));
  const clock = (second: number) => minuteText(Math.floor(second / 60));
  return (
    <div data-said="sun" className="mt-3">
      <div className="flex flex-wrap items-end gap-x-5 gap-y-3">
        <span className="w-[160px]">
          <NumberField
            label="Latitude, north +"
            unit="°"
            value={place?.latitudeDeg ?? 0}
            least={-90}
            most={90}
            whole={false}
            warn={() => problem('sun')}
            onKeep={(latitudeDeg) => setPlace({ latitudeDeg })}
          />
        </span>
        <span className="w-[160px]">
          <NumberField
            label="Longitude, east +"
            unit="°"
            value={place?.longitudeDeg ?? 0}
            least={-180}
            most={180}
            whole={false}
            onKeep={(longitudeDeg) => setPlace({ longitudeDeg })}
          />
        </span>
      </div>
      {place && (
        <p className="mt-1 max-w-[68ch] text-[14px] text-soft">
          {sun
            ? `Today the sun rises at ${clock(sun.riseS)} and sets at ${clock(sun.setS)}.`
            : 'Today the sun does not rise or does not set there, so the light stays dark.'}
          {place.isRough &&
            ' The longitude is that of the middle of your time zone: give your own, or these may be off by an hour and more.'}{' '}
          A day on which one moment passes the other, as when the sun sets after the light is to go out, has
          no light.
        </p>
      )}
    </div>
  );
}

function Cell({
  contact,
  rule,
  set,
}: {
  contact: Contact;
  rule: LightRule;
  set: (change: Partial<LightRule>) => void;
}) {
  const { problem, keep } = useContact(contact);
  const { cell } = rule;
  const wrong = problem('cell');
  const number = (key: 'darkBelow' | 'brightAbove', label: string) =>
    cell && (
      <span className="w-[170px]">
        <NumberField
          label={label}
          unit="raw counts"
          value={cell[key]}
          least={-1e6}
          most={1e6}
          whole
          onKeep={(value) => set({ cell: { ...cell, [key]: value } })}
        />
      </span>
    );
  return (
    <section aria-label={`Light cell of ${contact.name}`} className="mt-4 border-t border-rule pt-3">
      <h2>Within these hours, only while</h2>
      <div data-said="cell" className="mt-1 flex flex-wrap items-end gap-x-5 gap-y-2">
        <Check
          className="min-w-[250px]"
          checked={cell !== null}
          onChange={(on) => set({ cell: on ? FIRST_CELL : null })}
        >
          a light cell says it is dark
        </Check>
        {number('darkBelow', 'On below')}
        {number('brightAbove', 'Off above')}
        {cell && (
          <SensorChoice about={contact} sense="light" choose={(around) => keep('light cell', { around })} />
        )}
      </div>
      {cell && (
        <p className="mt-1 max-w-[68ch] text-[14px] text-soft">
          The cell sees the lamp too. Read it on Bench, Readout with the lamp on and no daylight: “off above”
          must be well above that number, or the light would blink.
        </p>
      )}
      {wrong && (
        <p role="alert" className="mt-1 max-w-[68ch] text-[13px] font-medium text-handle">
          {wrong}
        </p>
      )}
      <ul className="mt-2">
        <ConditionRow
          about={contact}
          of="noSkip"
          problem={problem(CONDITION_ROWS.noSkip.field)}
          set={(change) => keep('conditions', { conditions: { ...contact.conditions, ...change } })}
          choose={(around) => keep('conditions', { around })}
        />
      </ul>
    </section>
  );
}
