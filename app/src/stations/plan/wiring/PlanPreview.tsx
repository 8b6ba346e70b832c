import { useMemo, useState } from 'react';
import type { Netlist } from '@plain-trowel/core/wiring/netlist';
import type { Blocked } from '@plain-trowel/core/wiring/planPins';
import type { WiringPlan } from '@plain-trowel/core/wiring/planWiring';
import { withChanges, type Change } from '@plain-trowel/core/wiring/proposal';
import { Button } from '../../../ui/Button.tsx';
import { Dialog } from '../../../ui/Dialog.tsx';
import { provedText } from '../../../words/wiringText.ts';
import type { usePlan } from '../usePlan.ts';
import { useForeseen } from './useVerdict.ts';

/** What would be drawn, line by line with its reason, before anything is changed; single lines can be refused. */
export function PlanPreview({
  plan,
  proposed,
  onWithout,
  onFix,
  onDraw,
  onClose,
}: {
  plan: ReturnType<typeof usePlan>;
  proposed: WiringPlan;
  /** Works it out again without these parts. */
  onWithout: (parts: readonly string[]) => void;
  /** Adds the part that makes room for more. */
  onFix: (blocked: Blocked) => void;
  onDraw: (netlist: Netlist) => void;
  onClose: () => void;
}) {
  const { wiring } = plan;
  const [taken, setTaken] = useState(() => new Set(proposed.changes.map((change) => change.id)));
  const netlist = useMemo(
    () => withChanges(wiring, proposed.proposal, proposed.changes, taken),
    [wiring, proposed, taken],
  );
  const foreseen = useForeseen(plan, netlist);
  const turn = (id: string) =>
    setTaken((held) => {
      const next = new Set(held);
      if (!next.delete(id)) next.add(id);
      return next;
    });
  const labels = proposed.inTheWay.map((id) => wiring.parts.find((part) => part.id === id)?.label ?? id);
  const isWhole = taken.size === proposed.changes.length;
  const reasons =
    isWhole && proposed.refused.length > 0 ? proposed.refused : (foreseen?.harm.map((one) => one.says) ?? []);
  const ofParts = proposed.changes.filter(({ kind }) => kind.startsWith('part'));
  const ofWires = proposed.changes.filter(({ kind }) => kind.startsWith('wire'));
  const told = [
    ...(ofParts.length > 0 ? [count(ofParts.length, 'part or value', 'parts and values')] : []),
    ...(ofWires.length > 0 ? [count(ofWires.length, 'wire', 'wires')] : []),
  ];
  return (
    <Dialog
      open
      onClose={onClose}
      title="What would be drawn"
      description={`${told.join(', ')}. Nothing is changed before you say so; lines that you do not want can be left out.`}
    >
      <p aria-live="polite" className="mb-2 font-semibold">
        {foreseen
          ? `After this the sheet would say: “${provedText(foreseen.verdict)}”.`
          : 'Checking what this would lead to …'}
      </p>
      {reasons.length > 0 && (
        <div role="alert" className="mb-3 border-l-2 border-handle pl-3">
          <p>This would leave a fault in the wiring, so it is not drawn as it is:</p>
          <ul className="list-disc pl-5">
            {reasons.slice(0, 6).map((says) => (
              <li key={says}>{says}</li>
            ))}
          </ul>
          {proposed.blocked.flatMap((one) =>
            one.fix ? (
              <Button key={one.says} look="primary" className="mt-2 mr-2" onClick={() => onFix(one)}>
                {one.fix.label}
              </Button>
            ) : (
              []
            ),
          )}
          {labels.length > 0 && (
            <Button className="mt-2" onClick={() => onWithout(proposed.inTheWay)}>
              Work it out without {labels.slice(0, 3).join(', ')}
              {labels.length > 3 ? ` and ${labels.length - 3} more` : ''}
            </Button>
          )}
        </div>
      )}
      <div className="max-h-[46vh] overflow-y-auto border-y border-rule">
        <Lines title="Parts and values" changes={ofParts} taken={taken} onTurn={turn} />
        <Lines title="Wires" changes={ofWires} taken={taken} onTurn={turn} />
      </div>
      <div className="mt-3 flex flex-wrap gap-2">
        <Button
          look="primary"
          disabled={taken.size === 0 || reasons.length > 0 || foreseen === null}
          onClick={() => onDraw(netlist)}
        >
          {isWhole ? 'Draw all of it' : `Draw ${count(taken.size, 'line', 'lines')}`}
        </Button>
        <Button onClick={onClose}>Leave it</Button>
      </div>
    </Dialog>
  );
}

const count = (number: number, one: string, many: string): string => `${number} ${number === 1 ? one : many}`;

function Lines({
  title,
  changes,
  taken,
  onTurn,
}: {
  title: string;
  changes: readonly Change[];
  taken: ReadonlySet<string>;
  onTurn: (id: string) => void;
}) {
  if (changes.length === 0) return null;
  return (
    <fieldset className="py-2">
      <legend className="sr-only">{title}</legend>
      <p aria-hidden className="text-[14px] font-semibold text-soft">
        {title}
      </p>
      <ul>
        {changes.map((change) => (
          <li key={change.id}>
            <label className="flex items-start gap-2.5 py-1">
              <input
                type="checkbox"
                className="mt-1"
                checked={taken.has(change.id)}
                onChange={() => onTurn(change.id)}
              />
              <span className="min-w-0">
                {SIGNS[change.kind]} {change.what}
                <span className="block text-[14px] text-soft">{change.why}</span>
              </span>
            </label>
          </li>
        ))}
      </ul>
    </fieldset>
  );
}

const SIGNS: Readonly<Record<Change['kind'], string>> = {
  'part added': 'Add',
  'part changed': 'Set',
  'wire added': 'Draw',
  'wire moved': 'Move',
  'wire removed': 'Take off',
};
