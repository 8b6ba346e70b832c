/** Counts how often somebody does something, and says when it is too often. */
export class AtMost {
  private counts = new Map<string, number>();
  private sinceMs = -Infinity;

  /** @param most times within each window of so many ms */
  constructor(
    private readonly most: number,
    private readonly windowMs: number,
    private readonly tickMs: () => number = () => performance.now(),
  ) {}

  /** Counts once more. @returns whether that is still within bounds */
  may(who: string): boolean {
    const nowMs = this.tickMs();
    if (nowMs - this.sinceMs >= this.windowMs) {
      this.sinceMs = nowMs;
      this.counts = new Map();
    }
    const count = (this.counts.get(who) ?? 0) + 1;
    this.counts.set(who, count);
    return count <= this.most;
  }
}
