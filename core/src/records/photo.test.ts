import { expect, test } from 'vitest';
import { isPhoto, MOST_PHOTO_BYTES, shrunk } from './photo.ts';

test('a picture keeps its shape, and is made no larger', () => {
  expect(shrunk(4000, 3000)).toEqual({ width: 1600, height: 1200 });
  expect(shrunk(3000, 4000)).toEqual({ width: 1200, height: 1600 });
  expect(shrunk(800, 600)).toEqual({ width: 800, height: 600 });
  expect(shrunk(100_000, 10)).toEqual({ width: 1600, height: 1 });
  expect(shrunk(0, 0)).toEqual({ width: 1, height: 1 });
});

test('only what begins as a JPEG, and is no larger than one of ours, is a photo', () => {
  const jpeg = (length: number) => Uint8Array.from({ length }, (_, at) => [0xff, 0xd8, 0xff, 0xe0][at] ?? 0);
  expect(isPhoto(jpeg(2000))).toBe(true);
  expect(isPhoto(jpeg(50))).toBe(false);
  expect(isPhoto(jpeg(MOST_PHOTO_BYTES + 1))).toBe(false);
  expect(isPhoto(new Uint8Array(2000))).toBe(false);
  expect(isPhoto('ÿØÿ')).toBe(false);
});
