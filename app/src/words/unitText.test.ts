import { METRIC } from '@plain-trowel/core/quantity/units';
import { afterEach, expect, test } from 'vitest';
import { depthText, litresText, speakIn, temperatureApartText, temperatureText } from './unitText.ts';

afterEach(() => speakIn(METRIC));

test('metric at first', () => {
  expect([
    temperatureText(-0.04),
    temperatureText(21.27, 0),
    litresText(12_540),
    depthText(7),
    depthText(7.5),
  ]).toEqual(['0.0 °C', '21 °C', '12.5 l', '7 cm', '7.5 cm']);
});
test('in the units that were chosen; a difference of temperatures keeps its zero', () => {
  speakIn({ temperature: 'F', volume: 'gal', length: 'in' });
  expect([temperatureText(20, 0), temperatureApartText(10, 0), litresText(20_000), depthText(7)]).toEqual([
    '68 °F',
    '18 °F',
    '5.28 gal',
    '2.8 in',
  ]);
});
