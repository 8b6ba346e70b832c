import type { BoardSleep } from '@plain-trowel/core/sketch/boardSleeps';
import { formatDuration } from '@plain-trowel/core/quantity/format';
import { problemText } from '../../../words/sketchText.ts';

/** What the boards' programs do of the sleep that the plan wants: it is what the figures count. */
export function Sleepers({ all, everyS }: { readonly all: readonly BoardSleep[]; readonly everyS: number }) {
  const awake = all.flatMap(({ why }) => why);
  const oftener = all.filter(({ sleep }) => sleep && sleep.everyS < everyS);
  if (awake.length + oftener.length === 0) return null;
  return (
    <ul aria-label="What the programs do" className="mb-3 border-l-2 border-handle pl-3 text-[14px]">
      {awake.map((one) => (
        <li key={one.what}>{problemText(one)} It is counted awake here.</li>
      ))}
      {oftener.map(({ name, sleep }) => (
        <li key={name}>
          {name} wakes every {formatDuration(sleep?.everyS ?? 0)}, for its limits believe no older reading:
          that is counted here.
        </li>
      ))}
    </ul>
  );
}
