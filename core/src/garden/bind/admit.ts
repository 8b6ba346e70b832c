/**
 * The one gate in front of storage: no document is written that could not be opened again, or from which a board would get a number that it cannot
 * hold. Whoever writes asks here first.
 */
import { fail, ok, type Result } from '../../quantity/result.ts';
import { fieldName } from '../../quantity/fieldName.ts';
import { engineOf } from './engineOf.ts';
import { faultsOf, type Fault, type Path } from '../document/faults.ts';
import { gardenSchema, type Garden } from '../document/schema.ts';

/** The garden itself when it may be stored, else everything that is wrong with it. Cannot throw. */
export function admitGarden(garden: Garden): Result<Garden, readonly Fault[]> {
  const read = gardenSchema.safeParse(garden);
  if (!read.success) return fail(faultsOf(garden, read.error.issues));
  const faults = garden.boards.flatMap((board, at) => engineFaults(garden, board.id, ['boards', at]));
  return faults.length > 0 ? fail(faults) : ok(garden);
}

/** A board holds whole numbers of 32 bits, its sums 64. */
const LARGEST = 2 ** 31 - 1;

function engineFaults(garden: Garden, boardId: string, path: Path): Fault[] {
  const fault = (message: string): Fault => ({
    path,
    field: fieldName(path),
    rule: { kind: 'other', message },
    value: boardId,
  });
  try {
    const { config, contacts } = engineOf(garden, boardId);
    const held = { ...config, contacts };
    const wrong = numbersOf(held, '').find(
      ([, number]) => !Number.isInteger(number) || Math.abs(number) > LARGEST,
    );
    return wrong ? [fault(`its program would get ${wrong[0]} = ${wrong[1]}, which a board cannot hold`)] : [];
  } catch {
    return [fault('no program can be worked out for it')];
  }
}

/** Every number in a tree of settings, with the place at which it stands. */
function numbersOf(tree: unknown, place: string): (readonly [string, number])[] {
  if (typeof tree === 'number') return [[place, tree]];
  if (typeof tree !== 'object' || tree === null) return [];
  return Object.entries(tree).flatMap(([key, inner]) =>
    numbersOf(inner, place === '' ? key : `${place}.${key}`),
  );
}
