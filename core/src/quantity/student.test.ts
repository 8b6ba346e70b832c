import { expect, test } from 'vitest';
import { student975, Z_975 } from './student.ts';

/**
 * Share of Student's law below t, by a second method: with t = √n · tan θ its density is cosⁿ⁻¹ θ, summed by Simpson's rule.
 */
function shareBelow(t: number, degreesOfFreedom: number): number {
  const area = (to: number): number => {
    const steps = 2000;
    let sum = 0;
    for (let at = 0; at <= steps; at += 1) {
      const weight = at === 0 || at === steps ? 1 : at % 2 === 1 ? 4 : 2;
      sum += weight * Math.cos((to * at) / steps) ** (degreesOfFreedom - 1);
    }
    return (sum * to) / steps / 3;
  };
  return 0.5 + (0.5 * area(Math.atan(t / Math.sqrt(degreesOfFreedom)))) / area(Math.PI / 2);
}

test.each(Array.from({ length: 30 }, (_, at) => at + 1))(
  '97.5 %% lie below the value for %d degrees of freedom',
  (n) => {
    // Three decimals of t are up to 0.00005 of the share where the law is steep; a turned digit is many times that.
    expect(Math.abs(shareBelow(student975(n), n) - 0.975)).toBeLessThan(6e-5);
  },
);

test('beyond the table it goes on to the normal law, and without any freedom there is no bound', () => {
  expect(student975(60)).toBeCloseTo(2.0, 2);
  expect(student975(1e9)).toBeCloseTo(Z_975, 6);
  expect(student975(0)).toBe(Infinity);
});
