import type { Circuit } from '@plain-trowel/core/wiring/circuit';
import type { End } from '@plain-trowel/core/wiring/netlist';
import { endOfValue, endValue } from './ends.ts';

/** One end of a wire, chosen by part and terminal. */
export function EndSelect({
  circuit,
  label,
  value,
  onChange,
}: {
  circuit: Circuit;
  label: string;
  value: End | null;
  onChange: (end: End) => void;
}) {
  return (
    <select
      aria-label={label}
      className="field min-h-[30px]! w-full max-w-[260px] py-0.5! text-[14px]"
      value={value ? endValue(value) : ''}
      onChange={(event) => event.target.value !== '' && onChange(endOfValue(event.target.value))}
    >
      {value === null && <option value="">choose a terminal</option>}
      {[...circuit.parts.values()].map((placed) => (
        <optgroup key={placed.part.id} label={placed.part.label}>
          {placed.spots.map((spot) => (
            <option key={spot.terminal.id} value={endValue(spot.end)}>
              {placed.part.label} {spot.terminal.name}
            </option>
          ))}
        </optgroup>
      ))}
    </select>
  );
}
