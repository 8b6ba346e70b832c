/** What became of a file that was taken in. */
import { formatNumber } from '@plain-trowel/core/quantity/format';
import type { PutOutcome } from '../data/putReadings.ts';
import type { ImportPreview } from '../data/recordsImport.ts';

const readings = (count: number) => `${formatNumber(count)} ${count === 1 ? 'reading' : 'readings'}`;

/** "412 new readings were taken in from roof.csv; 3 of them stand beside recorded ones; 20 were in the log already." */
export function takenInText(
  fileName: string,
  { added, beside }: Pick<PutOutcome, 'added' | 'beside'>,
  { same, clashes, inside }: Pick<ImportPreview, 'same' | 'clashes' | 'inside'>,
  encoding: string,
): string {
  const leftOut = clashes + inside - beside;
  const parts = [
    `${formatNumber(added)} new ${added === 1 ? 'reading was' : 'readings were'} taken in from ${fileName}`,
    beside > 0
      ? `${formatNumber(beside)} of them ${beside === 1 ? 'stands' : 'stand'} beside recorded ones`
      : '',
    leftOut > 0 ? `${readings(leftOut)} with other values ${leftOut === 1 ? 'was' : 'were'} left out` : '',
    same > 0 ? `${readings(same)} ${same === 1 ? 'was' : 'were'} in the log already` : '',
  ].filter((part) => part !== '');
  return `${parts.join('; ')}.${encoding === 'UTF-8' ? '' : ` The file was read as ${encoding}.`}`;
}
