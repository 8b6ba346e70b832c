import { bestDivider } from '../electrics/divider.ts';
import type { Spot } from './circuit.ts';
import type { Remedy } from './finding.ts';
import { endOf, groundSpot, inOhm } from './look.ts';

/**
 * A divider before an input, so that at most `mostV` arrives of `highV`; none where no pair does it.
 * @param probeOhm what the source has behind it: a divider of nine times that leaves nine tenths of its signal. Where that and the
 *   converter's limit exclude each other, the converter's limit comes first.
 */
export function dividerRemedy(input: Spot, highV: number, mostV: number, probeOhm = 0): Remedy[] {
  const asked = { inV: highV, targetV: mostV, series: 'E12', sourceLimitOhm: 10_000 } as const;
  const gentle = bestDivider({ ...asked, leastSumOhm: Math.max(10_000, 9 * probeOhm) });
  const found = gentle.ok ? gentle : bestDivider({ ...asked, leastSumOhm: 10_000 });
  if (!found.ok) return [];
  const { upperOhm, lowerOhm } = found.value;
  return [
    {
      kind: 'insert',
      label: `Put a divider ${inOhm(upperOhm)} over ${inOhm(lowerOhm)} before it`,
      entryId: 'divider',
      at: input.end,
      inTerminal: 'in',
      outTerminal: 'out',
      ground: endOf(groundSpot(input.placed)),
      settings: { upperOhm, lowerOhm },
    },
  ];
}
