/**
 * Inverse of a small symmetric positive definite matrix, by Cholesky: what the covariance of a fit is, given the sums of its normal equations.
 * Source: Golub & Van Loan, Matrix Computations, algorithm 4.2.1.
 */

/** @param matrix n rows of n numbers, symmetric; @returns the inverse, or null where it is not positive definite */
export function inverseOf(matrix: readonly (readonly number[])[]): number[][] | null {
  const size = matrix.length;
  const lower: number[][] = [];
  for (let row = 0; row < size; row += 1) {
    lower.push([]);
    for (let column = 0; column <= row; column += 1) {
      let sum = matrix[row]?.[column] ?? Number.NaN;
      for (let k = 0; k < column; k += 1) sum -= (lower[row]?.[k] ?? 0) * (lower[column]?.[k] ?? 0);
      // Written so that a diagonal which is no number is refused as well.
      if (row === column && !(sum > 0)) return null;
      lower[row]?.push(row === column ? Math.sqrt(sum) : sum / (lower[column]?.[column] ?? 1));
    }
  }
  const columns = Array.from({ length: size }, (_, of) => solveColumn(lower, of));
  return columns;
}

/** Column of the inverse: forward with a unit vector, then back. The inverse is symmetric, so columns are rows. */
function solveColumn(lower: readonly (readonly number[])[], of: number): number[] {
  const size = lower.length;
  const half = new Array<number>(size).fill(0);
  for (let row = of; row < size; row += 1) {
    let left = row === of ? 1 : 0;
    for (let k = of; k < row; k += 1) left -= (lower[row]?.[k] ?? 0) * (half[k] ?? 0);
    half[row] = left / (lower[row]?.[row] ?? 1);
  }
  const whole = new Array<number>(size).fill(0);
  for (let row = size - 1; row >= 0; row -= 1) {
    let left = half[row] ?? 0;
    for (let k = row + 1; k < size; k += 1) left -= (lower[k]?.[row] ?? 0) * (whole[k] ?? 0);
    whole[row] = left / (lower[row]?.[row] ?? 1);
  }
  return whole;
}
