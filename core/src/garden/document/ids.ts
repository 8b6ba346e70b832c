const LETTERS = 'abcdefghjkmnpqrstuvwxyz23456789';

/**
 * A short, stable id such as `plot-k7m2`, not among those taken. Letters that are easily mistaken (i, l, o, 0, 1) are left out.
 * @param random gives numbers in [0, 1), as Math.random does
 */
export function makeId(prefix: string, taken: ReadonlySet<string>, random: () => number): string {
  for (;;) {
    const tail = Array.from({ length: 4 }, () => LETTERS[Math.floor(random() * LETTERS.length)] ?? 'a').join(
      '',
    );
    const candidate = `${prefix}-${tail}`;
    if (!taken.has(candidate)) return candidate;
  }
}
