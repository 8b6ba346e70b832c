/**
 * Symmetric linear equations with few terms each, as circuits give them: the same pattern is solved hundreds of times with other numbers, so that the order of
 * elimination and every place that it fills in are worked out once.
 */

/** Steps of the elimination: for each pivot its row's places, and where each product of two of them is taken off. */
type Pivot = {
  readonly node: number;
  readonly later: Int32Array;
  readonly places: Int32Array;
  readonly targets: Int32Array;
};

export class SymmetricSystem {
  private readonly pivots: Pivot[] = [];
  private readonly placeOfPair: Int32Array;
  private readonly count: number;
  private readonly diagonal: Float64Array;
  private readonly beside: Float64Array;

  /** @param pairs which two unknowns stand in one equation; the same two may stand there more than once */
  constructor(unknowns: number, pairs: readonly (readonly [number, number])[]) {
    const places = new Map<number, number>();
    const neighbours = Array.from({ length: unknowns }, () => new Set<number>());
    const placeOf = (one: number, other: number): number => {
      const key = Math.min(one, other) * unknowns + Math.max(one, other);
      const place = places.get(key) ?? places.size;
      places.set(key, place);
      return place;
    };
    this.placeOfPair = Int32Array.from(pairs, ([one, other]) => {
      if (one === other) return -1;
      neighbours[one]?.add(other);
      neighbours[other]?.add(one);
      return placeOf(one, other);
    });
    const left = new Set(neighbours.keys());
    while (left.size > 0) {
      // The unknown with the fewest neighbours goes first: it fills in the least.
      let node = -1;
      for (const each of left)
        if (node < 0 || (neighbours[each]?.size ?? 0) < (neighbours[node]?.size ?? 0)) node = each;
      left.delete(node);
      const later = [...(neighbours[node] ?? [])];
      const targets: number[] = [];
      for (const [at, one] of later.entries()) {
        neighbours[one]?.delete(node);
        for (const other of later.slice(at + 1)) {
          neighbours[one]?.add(other);
          neighbours[other]?.add(one);
          targets.push(placeOf(one, other));
        }
      }
      this.pivots.push({
        node,
        later: Int32Array.from(later),
        places: Int32Array.from(later, (other) => placeOf(node, other)),
        targets: Int32Array.from(targets),
      });
    }
    this.count = places.size;
    this.diagonal = new Float64Array(unknowns);
    this.beside = new Float64Array(this.count);
  }

  /** Begins again with nothing but this on the diagonal. */
  clear(onDiagonal: number): void {
    this.diagonal.fill(onDiagonal);
    this.beside.fill(0);
  }

  addDiagonal(unknown: number, factor: number): void {
    this.diagonal[unknown] = (this.diagonal[unknown] ?? 0) + factor;
  }

  /** A conductance between the two of a pair: it stands on both diagonals, and with a minus beside them. */
  addBetween(pair: number, one: number, other: number, siemens: number): void {
    const place = this.placeOfPair[pair] ?? -1;
    if (place < 0) return;
    this.addDiagonal(one, siemens);
    this.addDiagonal(other, siemens);
    this.beside[place] = (this.beside[place] ?? 0) - siemens;
  }

  /** Solves for the right sides given, in place. @returns null where an unknown is held by nothing at all */
  solve(right: Float64Array): Float64Array | null {
    const { diagonal, beside } = this;
    for (const { node, later, places, targets } of this.pivots) {
      const own = diagonal[node] ?? 0;
      if (!(Math.abs(own) > 1e-15)) return null;
      let target = 0;
      for (let at = 0; at < later.length; at += 1) {
        const row = later[at] ?? 0;
        const share = (beside[places[at] ?? 0] ?? 0) / own;
        if (share === 0) {
          target += later.length - at - 1;
          continue;
        }
        diagonal[row] = (diagonal[row] ?? 0) - share * (beside[places[at] ?? 0] ?? 0);
        for (let to = at + 1; to < later.length; to += 1) {
          const place = targets[target] ?? 0;
          beside[place] = (beside[place] ?? 0) - share * (beside[places[to] ?? 0] ?? 0);
          target += 1;
        }
        right[row] = (right[row] ?? 0) - share * (right[node] ?? 0);
      }
    }
    for (let step = this.pivots.length - 1; step >= 0; step -= 1) {
      const pivot = this.pivots[step];
      if (!pivot) continue;
      const { node, later, places } = pivot;
      let rest = right[node] ?? 0;
      for (let at = 0; at < later.length; at += 1)
        rest -= (beside[places[at] ?? 0] ?? 0) * (right[later[at] ?? 0] ?? 0);
      right[node] = rest / (diagonal[node] ?? 1);
    }
    return right;
  }
}
