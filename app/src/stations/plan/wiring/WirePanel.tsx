import { removeWire, rerouteWire } from '@plain-trowel/core/wiring/edit';
import type { Wire } from '@plain-trowel/core/wiring/netlist';
import { Button } from '../../../ui/Button.tsx';
import type { usePlan } from '../usePlan.ts';
import { endName } from './ends.ts';
import { EndSelect } from './EndSelect.tsx';
import { levelText } from './levelText.ts';

/** The wire that was chosen in the picture. */
export function WirePanel({
  plan,
  wire,
  onGone,
}: {
  plan: ReturnType<typeof usePlan>;
  wire: Wire;
  onGone: () => void;
}) {
  const { circuit } = plan;
  const cable = wire.cableId === null ? undefined : circuit.cables.get(wire.cableId);
  return (
    <div className="mt-3 border-t border-ink pt-2">
      <h2>
        {endName(circuit, wire.from)} – {endName(circuit, wire.to)}
      </h2>
      <p className="text-[14px] text-soft">
        {cable
          ? `Cable ${cable.label}${cable.colour === 'none' ? '' : `, ${cable.colour} tag`}. `
          : 'In the box. '}
        {levelText(circuit, wire.from)}
      </p>
      <div className="mt-2 flex flex-wrap items-center gap-2">
        <EndSelect
          circuit={circuit}
          label="From"
          value={wire.from}
          onChange={(from) =>
            void plan.changeWiring('wire rerouted', (held) => rerouteWire(held, wire.id, from, wire.to))
          }
        />
        <EndSelect
          circuit={circuit}
          label="To"
          value={wire.to}
          onChange={(to) =>
            void plan.changeWiring('wire rerouted', (held) => rerouteWire(held, wire.id, wire.from, to))
          }
        />
        <Button
          onClick={() => {
            onGone();
            void plan.changeWiring('wire removed', (held) => removeWire(held, wire.id), 'Wire removed.');
          }}
        >
          Remove wire
        </Button>
      </div>
    </div>
  );
}
