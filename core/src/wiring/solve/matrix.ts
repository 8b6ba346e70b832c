/** Linear equations with few terms each, as circuits give them. */

/** One equation: the factors of the unknowns that stand in it. */
export type Row = Map<number, number>;

/**
 * Solves as many equations as unknowns by elimination. The unknown with the fewest neighbours goes first, so that little is filled in; of a circuit's
 * conductances the diagonal is never the weak one, so that no rows need be exchanged.
 * @param rows consumed: elimination works in them
 * @returns null where an unknown is held by nothing at all
 */
export function solveSparse(rows: Row[], right: number[]): number[] | null {
  const order = rows.map((_, at) => at).sort((one, other) => sizeOf(rows, one) - sizeOf(rows, other));
  const place: number[] = [];
  for (const [at, unknown] of order.entries()) place[unknown] = at;
  const comesAfter = (one: number, other: number) => (place[one] ?? 0) > (place[other] ?? 0);
  for (const pivot of order) {
    const row = rows[pivot];
    const diagonal = row?.get(pivot);
    if (!row || diagonal === undefined || !(Math.abs(diagonal) > 1e-15)) return null;
    for (const below of row.keys()) {
      if (!comesAfter(below, pivot)) continue;
      const lower = rows[below];
      const share = (lower?.get(pivot) ?? 0) / diagonal;
      if (!lower || share === 0) continue;
      lower.delete(pivot);
      for (const [column, factor] of row)
        if (comesAfter(column, pivot)) lower.set(column, (lower.get(column) ?? 0) - share * factor);
      right[below] = (right[below] ?? 0) - share * (right[pivot] ?? 0);
    }
  }
  const values: number[] = [];
  for (const unknown of order.reverse()) {
    const row = rows[unknown];
    let rest = right[unknown] ?? 0;
    for (const [column, factor] of row ?? [])
      if (comesAfter(column, unknown)) rest -= factor * (values[column] ?? 0);
    values[unknown] = rest / (row?.get(unknown) ?? 1);
  }
  return values;
}

const sizeOf = (rows: readonly Row[], at: number): number => rows[at]?.size ?? 0;
