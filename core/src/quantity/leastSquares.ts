/**
 * Linear least squares for the few columns of a curve, by Householder reflections: the columns are turned until they are triangular, which squares no errors as
 * the normal equations would. Source: Golub & Van Loan, Matrix Computations, algorithm 5.2.1 and section 5.3.
 */

/** A diagonal smaller than this share of the largest means that a column says nothing of its own. */
const RANK_FRAC = 1e-12;

/**
 * The weights that bring rows × weights nearest to the values.
 * @param rows n rows of m numbers, n ≥ m ≥ 1
 * @param values n numbers
 * @returns m weights; null where the columns depend on each other, or something is no number
 */
export function leastSquares(
  rows: readonly (readonly number[])[],
  values: readonly number[],
): number[] | null {
  const many = rows[0]?.length ?? 0;
  if (many === 0 || rows.length < many || rows.some((row) => row.length !== many)) return null;
  // Columns of the matrix, with the values as the last one: what turns the one turns the other.
  const columns = Array.from({ length: many + 1 }, (_, at) =>
    Float64Array.from(rows, (row, place) => (at === many ? values[place] : row[at]) ?? Number.NaN),
  );
  for (let at = 0; at < many; at += 1) reflect(columns, at);
  const at = (row: number, column: number): number => columns[column]?.[row] ?? Number.NaN;
  const largest = Math.max(...Array.from({ length: many }, (_, one) => Math.abs(at(one, one))));
  const weights = new Array<number>(many).fill(0);
  for (let row = many - 1; row >= 0; row -= 1) {
    // Written so that a diagonal which is no number is refused as well.
    if (!(Math.abs(at(row, row)) > RANK_FRAC * largest)) return null;
    let left = at(row, many);
    for (let after = row + 1; after < many; after += 1) left -= at(row, after) * (weights[after] ?? 0);
    weights[row] = left / at(row, row);
  }
  return weights.every(Number.isFinite) ? weights : null;
}

/** Turns all columns from one on, so that this one is zero below the diagonal. */
function reflect(columns: readonly Float64Array[], at: number): void {
  const own = columns[at];
  if (!own) return;
  const length = Math.hypot(...own.subarray(at));
  if (!(length > 0)) return;
  const direction = own.slice(at);
  direction[0] = (direction[0] ?? 0) + ((direction[0] ?? 0) < 0 ? -length : length);
  const squared = direction.reduce((sum, one) => sum + one * one, 0);
  for (const column of columns.slice(at)) {
    let along = 0;
    for (const [place, one] of direction.entries()) along += one * (column[at + place] ?? 0);
    const twice = (2 * along) / squared;
    for (const [place, one] of direction.entries())
      column[at + place] = (column[at + place] ?? 0) - twice * one;
  }
}
