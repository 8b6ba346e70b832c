import type { LineFault } from '@plain-trowel/core/faults/lineFaults';
import type { StreamFault } from '@plain-trowel/core/faults/streamFaults';
import { useGarden } from '../../../data/gardenContext.ts';
import { lineFaultText, streamFaultText } from '../../../words/faultText.ts';
import { clockTime } from '@plain-trowel/core/quantity/timeText';

/** What is wrong, each with its next step; nothing when nothing is. */
export function FaultList({ faults, lines }: { faults: readonly StreamFault[]; lines: LineFault | null }) {
  const { garden } = useGarden();
  const words = [
    ...(lines ? [lineFaultText(lines)] : []),
    ...faults.map((fault) => streamFaultText(fault, (ms) => clockTime(ms, garden.timeZone))),
  ];
  if (words.length === 0) return null;
  return (
    <ul aria-label="Faults" className="mt-1 flex flex-col gap-1.5">
      {words.map((one) => (
        <li key={one.name} className="border-l-[3px] border-handle pl-3 text-[14.5px]">
          <b className="font-semibold text-handle">{one.name}.</b> {one.says}{' '}
          <span className="font-medium">{one.next}</span>
        </li>
      ))}
    </ul>
  );
}
