import { useEffect, useMemo, useState } from 'react';
import { waysOf } from '@plain-trowel/core/wiring/currentWay';
import type { Circuit, Placed } from '@plain-trowel/core/wiring/circuit';
import { WorkedNumber } from '../../../frame/WorkedNumber.tsx';
import { inMa } from '@plain-trowel/core/wiring/look';
import { Field } from '../../../ui/Field.tsx';

/** The current of a part and its way from plus to minus, in the situation that is chosen; its wires light up in the picture. */
export function CurrentWay({
  circuit,
  placed,
  onLight,
}: {
  circuit: Circuit;
  placed: Placed;
  /** The wires that carry it, and how much each carries; null when the part is left. */
  onLight: (carried: ReadonlyMap<string, string> | null) => void;
}) {
  const ways = useMemo(() => waysOf(circuit, placed), [circuit, placed]);
  const [when, setWhen] = useState<string | null>(null);
  const way = ways.find((one) => one.when === when) ?? ways[0] ?? null;
  const lit = useMemo(() => way && new Map(way.wires.map(({ id, ma }) => [id, inMa(ma)])), [way]);
  useEffect(() => {
    onLight(lit);
    return () => onLight(null);
  }, [lit, onLight]);
  if (!way)
    return (
      <p className="mt-2 text-[14px] text-soft">
        No current flows through it in any situation that was solved.
      </p>
    );
  return (
    <div className="mt-2 flex flex-wrap items-end gap-x-5 gap-y-2">
      <Field label="Current">
        {(props) => (
          <select {...props} value={way.when} onChange={(event) => setWhen(event.target.value)}>
            {ways.map((one) => (
              <option key={one.when}>{one.when}</option>
            ))}
          </select>
        )}
      </Field>
      <p className="pb-1.5">
        <WorkedNumber id={`current ${placed.part.id}`} worked={way.current} className="font-semibold" /> at{' '}
        <WorkedNumber id={`voltage ${placed.part.id}`} worked={way.voltage} className="font-semibold" />
        <span className="block text-[14px] text-soft">{way.parts.join(' → ')}</span>
      </p>
    </div>
  );
}
