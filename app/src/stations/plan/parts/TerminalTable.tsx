import { MOST } from '@plain-trowel/core/quantity/bounds';
import { AddButton } from '../../../ui/AddButton.tsx';
import {
  PIN_CAPS,
  terminalSchema,
  type PinCap,
  type Terminal,
  type TerminalType,
} from '@plain-trowel/core/catalogue/schema';
import { Button } from '../../../ui/Button.tsx';
import { CellNumber } from '../../../ui/CellNumber.tsx';
import { freshTerminal, NUMBER_FIELDS, PICK_FIELDS, TERMINAL_TYPES } from './terminalForm.ts';

/** The terminals of an entry: name, type, and what electrics must know of that type. */
export function TerminalTable({
  terminals,
  onChange,
}: {
  terminals: readonly Terminal[];
  onChange: (terminals: Terminal[]) => void;
}) {
  const put = (at: number, next: Terminal) =>
    onChange(terminals.map((one, index) => (index === at ? next : one)));
  return (
    <>
      <h3 className="mt-5 mb-1 text-[15px] font-semibold">Terminals</h3>
      <ul>
        {terminals.map((terminal, at) => (
          <li
            key={terminal.id}
            className="flex flex-wrap items-center gap-x-3 gap-y-1.5 border-b border-rule py-1.5 text-[14px]"
          >
            <input
              aria-label={`Name of terminal ${terminal.id}`}
              className="field min-h-[30px]! w-[150px] py-0.5!"
              value={terminal.name}
              maxLength={80}
              onChange={(event) => put(at, { ...terminal, name: event.target.value })}
            />
            <select
              aria-label={`Type of terminal ${terminal.name}`}
              className="field min-h-[30px]! py-0.5!"
              value={terminal.type}
              onChange={(event) =>
                put(at, {
                  ...freshTerminal(event.target.value as TerminalType, terminal.id),
                  name: terminal.name,
                })
              }
            >
              {TERMINAL_TYPES.map((type) => (
                <option key={type}>{type}</option>
              ))}
            </select>
            <Figures terminal={terminal} onChange={(next) => put(at, next)} />
            <Button
              look="quiet"
              className="ml-auto min-h-0! py-0! text-[13.5px]!"
              aria-label={`Remove terminal ${terminal.name}`}
              onClick={() => onChange(terminals.filter((_, index) => index !== at))}
            >
              remove
            </Button>
          </li>
        ))}
      </ul>
      <AddButton
        count={terminals.length}
        most={MOST.terminals}
        what="terminals"
        className="mt-2 text-[14px]!"
        onClick={() => onChange([...terminals, freshTerminal('analog out', freeId(terminals))])}
      >
        Add a terminal
      </AddButton>
    </>
  );
}

const freeId = (terminals: readonly Terminal[]): string => {
  for (let n = 1; ; n += 1) if (!terminals.some((one) => one.id === `t${n}`)) return `t${n}`;
};

function Figures({ terminal, onChange }: { terminal: Terminal; onChange: (terminal: Terminal) => void }) {
  const held = terminal as unknown as Readonly<Record<string, unknown>>;
  const set = (key: string, value: unknown) => {
    const next = terminalSchema.safeParse({ ...terminal, [key]: value });
    if (next.success) onChange(next.data);
  };
  return (
    <>
      {NUMBER_FIELDS[terminal.type].map((field) => (
        <span key={field.key} className="flex items-center gap-1.5">
          <span className="text-[13px] text-soft">{field.label}</span>
          <CellNumber
            label={`${terminal.name}: ${field.label}`}
            value={(held[field.key] as number | null | undefined) ?? null}
            least={0}
            most={field.most}
            decimals={field.decimals}
            onKeep={(value) => set(field.key, value)}
          />
          <span className="text-[13px] text-soft">{field.unit}</span>
        </span>
      ))}
      {PICK_FIELDS[terminal.type].map((field) => (
        <select
          key={field.key}
          aria-label={`${terminal.name}: ${field.label}`}
          className="field min-h-[30px]! py-0.5!"
          value={held[field.key] as string}
          onChange={(event) => set(field.key, event.target.value)}
        >
          {field.of.map((one) => (
            <option key={one}>{one}</option>
          ))}
        </select>
      ))}
      {terminal.type === 'pin' && (
        <Caps caps={terminal.caps} name={terminal.name} onChange={(caps) => set('caps', caps)} />
      )}
    </>
  );
}

/** What a pin can do; at least one thing. */
function Caps({
  caps,
  name,
  onChange,
}: {
  caps: readonly PinCap[];
  name: string;
  onChange: (caps: PinCap[]) => void;
}) {
  return (
    <fieldset className="flex flex-wrap gap-x-3">
      <legend className="sr-only">What {name} can do</legend>
      {PIN_CAPS.map((cap) => (
        <label key={cap} className="flex items-center gap-1 text-[13px]">
          <input
            type="checkbox"
            className="accent-handle"
            checked={caps.includes(cap)}
            onChange={(event) =>
              onChange(event.target.checked ? [...caps, cap] : caps.filter((one) => one !== cap))
            }
          />
          {cap}
        </label>
      ))}
    </fieldset>
  );
}
