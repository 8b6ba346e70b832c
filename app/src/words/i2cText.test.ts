import { expect, test } from 'vitest';
import { BUILT_IN } from '@plain-trowel/core/catalogue/catalogue';
import { i2cTexts } from './i2cText.ts';

const textsOf = (id: string) => {
  const talk = BUILT_IN.find((one) => one.id === id)?.i2c;
  return talk ? i2cTexts(talk) : [];
};

test('how a part is asked is said byte by byte, as its sheet has it', () => {
  expect(textsOf('probe-humidity')).toEqual([
    'humidity: 24 00 is written; after 16 ms, 6 bytes are read, each two with their check. Bytes 4 and 5, high first, × 10000 / 65535: hundredths of % RH; 0 to 100 are believed.',
    'temperature: 24 00 is written; after 16 ms, 6 bytes are read, each two with their check. Bytes 1 and 2, high first, × 17500 / 65535 − 4500: hundredths of °C; −45 to 130 are believed.',
  ]);
  expect(textsOf('light-i2c')[0]).toBe(
    'Once it is fed, 01, then 10 is written; half a second later it is asked.',
  );
  expect(textsOf('converter-i2c')[1]).toBe(
    'at in1: 01 D3 83 is written; after 10 ms, 2 bytes are read from 00 on. Bytes 1 and 2, high first, with a sign: counts; 0 to 32\u202f767 are believed.',
  );
});
