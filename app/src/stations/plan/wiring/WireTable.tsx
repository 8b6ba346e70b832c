import { clsx } from 'clsx';
import { Scroll } from '../../../ui/Scroll.tsx';
import { useState } from 'react';
import { connect, removeWire, rerouteWire } from '@plain-trowel/core/wiring/edit';
import type { End, Wire } from '@plain-trowel/core/wiring/netlist';
import { Button } from '../../../ui/Button.tsx';
import { ColourFlag } from '../../../ui/ColourFlag.tsx';
import type { usePlan } from '../usePlan.ts';
import { endName } from './ends.ts';
import { EndSelect } from './EndSelect.tsx';
import { LossTable } from './LossTable.tsx';
import { MeasureTable } from './MeasureTable.tsx';
import { PartTable } from './PartTable.tsx';
import { wiresOf, type Selected } from './picture/selection.ts';

type PlanTools = ReturnType<typeof usePlan>;

/** The wiring as a table: every wire with both its ends, to be read aloud, worked by keyboard, and changed in place. */
export function WireTable({
  plan,
  selected,
  onSelect,
}: {
  plan: PlanTools;
  selected: Selected;
  onSelect: (selected: Selected) => void;
}) {
  const { wiring } = plan;
  const lit = wiresOf(selected, wiring);
  return (
    <>
      <PartTable plan={plan} selected={selected} onSelect={onSelect} />
      <h2 className="mt-6 border-t border-ink pt-3">Wires</h2>
      <Scroll label="Wires">
        <table>
          <thead>
            <tr>
              <th className="text-right">No.</th>
              <th>From</th>
              <th>To</th>
              <th>Cable</th>
              <th>
                <span className="sr-only">To do</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {wiring.wires.map((wire, at) => (
              <WireRow
                key={wire.id}
                plan={plan}
                wire={wire}
                number={at + 1}
                isLit={lit.has(wire.id)}
                isChosen={selected?.kind === 'wire' && selected.id === wire.id}
                onSelect={onSelect}
              />
            ))}
            <NewWire plan={plan} />
          </tbody>
        </table>
      </Scroll>
      {wiring.wires.length > 0 && (
        <>
          <MeasureTable circuit={plan.circuit} />
          <LossTable plan={plan} />
        </>
      )}
      {wiring.wires.length === 0 && (
        <p className="mt-2 text-soft">
          No wire yet. “Wire what is open” draws them all, or choose two terminals above.
        </p>
      )}
    </>
  );
}

/** One wire in words; its two choices of terminal are only made when it is to be changed. */
function WireRow({
  plan,
  wire,
  number,
  isLit,
  isChosen,
  onSelect,
}: {
  plan: PlanTools;
  wire: Wire;
  number: number;
  isLit: boolean;
  isChosen: boolean;
  onSelect: (selected: Selected) => void;
}) {
  const { circuit } = plan;
  const [changing, setChanging] = useState(false);
  const [from, to] = [endName(circuit, wire.from), endName(circuit, wire.to)];
  const cable = wire.cableId === null ? undefined : circuit.cables.get(wire.cableId);
  const reroute = (nextFrom: End, nextTo: End) =>
    void plan.changeWiring('wire rerouted', (held) => rerouteWire(held, wire.id, nextFrom, nextTo));
  return (
    <tr className={clsx(isLit && 'bg-paper-2 font-semibold')}>
      <td className="text-right">
        <Button
          look="quiet"
          className="num min-h-0! py-0!"
          aria-pressed={isChosen}
          aria-label={`Light wire ${number}, here, in the picture and on paper`}
          onClick={() => onSelect(isChosen ? null : { kind: 'wire', id: wire.id })}
        >
          {number}
        </Button>
      </td>
      <td>
        {changing ? (
          <EndSelect
            circuit={circuit}
            label={`From, wire ${from} to ${to}`}
            value={wire.from}
            onChange={(next) => reroute(next, wire.to)}
          />
        ) : (
          from
        )}
      </td>
      <td>
        {changing ? (
          <EndSelect
            circuit={circuit}
            label={`To, wire ${from} to ${to}`}
            value={wire.to}
            onChange={(next) => reroute(wire.from, next)}
          />
        ) : (
          to
        )}
      </td>
      <td className="whitespace-nowrap">
        {cable ? (
          <span className="inline-flex items-center gap-1.5">
            <ColourFlag colour={cable.colour} /> {cable.label}
            <span className="text-soft">{cable.colour === 'none' ? '' : cable.colour}</span>
          </span>
        ) : (
          <span className="text-soft">in the box</span>
        )}
      </td>
      <td className="text-right whitespace-nowrap">
        <Button
          look="quiet"
          className="min-h-0! py-0! text-[14px]!"
          aria-expanded={changing}
          aria-label={`Change the wire from ${from} to ${to}`}
          onClick={() => setChanging(!changing)}
        >
          {changing ? 'done' : 'change'}
        </Button>
        <Button
          look="quiet"
          className="ml-4 min-h-0! py-0! text-[14px]!"
          aria-label={`Remove the wire from ${from} to ${to}`}
          onClick={() =>
            void plan.changeWiring(
              'wire removed',
              (held) => removeWire(held, wire.id),
              `Wire from ${from} to ${to} removed.`,
            )
          }
        >
          remove
        </Button>
      </td>
    </tr>
  );
}

function NewWire({ plan }: { plan: PlanTools }) {
  const [from, setFrom] = useState<End | null>(null);
  const [to, setTo] = useState<End | null>(null);
  return (
    <tr>
      <td />
      <td>
        <EndSelect circuit={plan.circuit} label="From, new wire" value={from} onChange={setFrom} />
      </td>
      <td>
        <EndSelect circuit={plan.circuit} label="To, new wire" value={to} onChange={setTo} />
      </td>
      <td className="text-soft">new</td>
      <td className="text-right">
        <Button
          look="quiet"
          className="min-h-0! py-0! text-[14px]!"
          disabled={!from || !to}
          onClick={() => {
            if (!from || !to) return;
            void plan.changeWiring('wire drawn', (held) => connect(held, from, to));
            setFrom(null);
            setTo(null);
          }}
        >
          draw it
        </Button>
      </td>
    </tr>
  );
}
