import { MOST } from '@plain-trowel/core/quantity/bounds';
import type { WaterLine } from '@plain-trowel/core/garden/document/schema';
import type { SavedProgram } from '@plain-trowel/core/control/programs/programs';
import { Button } from '../../../../ui/Button.tsx';
import { TimeField } from '../../../../ui/TimeField.tsx';
import { minuteText } from '@plain-trowel/core/quantity/timeText';
import { useLine } from './useLine.ts';

type Timed = Extract<SavedProgram, { slots: unknown }>;
type Slot = Timed['slots'][number];
const DAYS = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'];

/** Times of a timer with their days. What contradicts the hours or the minimum interval is said, and kept. */
export function SlotsField({ line, program }: { line: WaterLine; program: Timed }) {
  const { problem: problemOf, keep } = useLine(line);
  const problem = problemOf('slots');
  const set = (slots: readonly Slot[]) =>
    keep('times', { program: { ...program, slots: [...slots].sort((a, b) => a.minute - b.minute) } });
  const replaced = (at: number, slot: Slot) => program.slots.map((one, other) => (other === at ? slot : one));
  const last = program.slots.at(-1);
  return (
    <fieldset data-said="slots" className="mt-3">
      <legend className="text-[12.5px] font-semibold text-soft">Times, local</legend>
      <ul className="mt-1 flex flex-col gap-2">
        {program.slots.map((slot, at) => (
          <li
            key={`${slot.minute} ${slot.days} ${at}`}
            className="flex flex-wrap items-center gap-x-4 gap-y-1.5"
          >
            <TimeField
              label={`Time ${at + 1}`}
              minute={slot.minute}
              onKeep={(minute) => set(replaced(at, { ...slot, minute }))}
            />
            <DayBoxes
              slot={slot}
              label={`Time ${at + 1}`}
              onChange={(days) => set(replaced(at, { ...slot, days }))}
            />
            {program.slots.length > 1 && (
              <button
                type="button"
                className="press underline underline-offset-4"
                onClick={() => set(program.slots.filter((_, other) => other !== at))}
              >
                Remove<span className="sr-only"> {minuteText(slot.minute)}</span>
              </button>
            )}
          </li>
        ))}
      </ul>
      {problem && (
        <p role="alert" className="mt-1 text-[13px] font-medium text-handle">
          {problem}
        </p>
      )}
      {program.slots.length < MOST.slots && last && (
        <Button
          className="mt-2"
          onClick={() => set([...program.slots, { ...last, minute: (last.minute + 360) % 1440 }])}
        >
          Add a time
        </Button>
      )}
    </fieldset>
  );
}

function DayBoxes({
  slot,
  label,
  onChange,
}: {
  slot: Slot;
  label: string;
  onChange: (days: number) => void;
}) {
  return (
    <span role="group" aria-label={`${label}, days`} className="flex flex-wrap gap-x-2.5">
      {DAYS.map((day, at) => {
        const isOn = ((slot.days >> at) & 1) === 1;
        const next = slot.days ^ (1 << at);
        return (
          <label key={day} className="press flex items-center gap-1 text-[13.5px]">
            <input
              type="checkbox"
              className="size-4 accent-handle"
              checked={isOn}
              // A time without any day would be none.
              disabled={next === 0}
              onChange={() => onChange(next)}
            />
            {day}
          </label>
        );
      })}
    </span>
  );
}
