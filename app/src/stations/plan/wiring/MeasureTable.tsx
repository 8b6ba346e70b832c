import { useMemo } from 'react';
import type { Circuit } from '@plain-trowel/core/wiring/circuit';
import { measuresOf } from '@plain-trowel/core/wiring/measures';
import { Scroll } from '../../../ui/Scroll.tsx';

/** What to measure before a board is put in, in the order of the bench. */
export function MeasureTable({ circuit }: { circuit: Circuit }) {
  const measures = useMemo(() => measuresOf(circuit), [circuit]);
  if (measures.length === 0) return null;
  return (
    <>
      <h2 className="mt-6 border-t border-ink pt-3">With the multimeter, before you trust it</h2>
      <p className="mb-2 max-w-[70ch] text-soft">
        First everything without power, the battery and every plug off, on the range that beeps; then with
        power, on the range for volts, with the boards out and last with them in. Stop at the first line that
        is not as it says.
      </p>
      <Scroll label="With the multimeter">
        <table>
          <thead>
            <tr>
              <th>When</th>
              <th>Red tip</th>
              <th>Black tip</th>
              <th>It should show</th>
            </tr>
          </thead>
          <tbody>
            {measures.map((one) => (
              <tr key={`${one.stage} ${one.red}`}>
                <td className="md:whitespace-nowrap">{one.stage}</td>
                <td>{one.red}</td>
                <td>{one.black}</td>
                <td className={one.stage === 'without power' ? undefined : 'num whitespace-nowrap'}>
                  {one.expects}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </Scroll>
    </>
  );
}
