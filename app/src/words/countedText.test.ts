import { expect, test } from 'vitest';
import { countedText, isOne } from './countedText.ts';
import { leftOutText, waitingText } from './storageText.ts';

test.each([
  [{ readings: 0, events: 0 }, ''],
  [{ readings: 1 }, '1 reading'],
  [{ readings: 2, events: 0 }, '2 readings'],
  [{ readings: 0, events: 1 }, '1 event'],
  [{ days: 2, photos: 1 }, 'readings of 2 days and 1 photo'],
  [{ readings: 12_000, events: 1, photos: 2 }, '12 000 readings, 1 event and 2 photos'],
])('%j is told as “%s”', (counts, text) => {
  expect(countedText(counts).replaceAll(/\s/g, ' ')).toBe(text);
});

test('one thing is one, two are more, and so are the readings of a day', () => {
  expect([{ events: 1 }, { events: 2 }, { days: 1 }].map(isOne)).toEqual([true, false, false]);
});

test('what waits is said with its verb', () => {
  expect(waitingText({ readings: 0, events: 0 })).toBe('');
  expect(waitingText({ readings: 1, events: 0 })).toMatch(/^1 reading waits in this page and is tried/);
  expect(waitingText({ readings: 3, events: 1 })).toMatch(
    /^3 readings and 1 event wait in this page and are/,
  );
});

test('a file that holds everything says nothing; what is missing in it is named', () => {
  expect(leftOutText({ days: 0, events: 0, photos: 0 })).toBeNull();
  expect(leftOutText({ days: 1, events: 0, photos: 0 })).toBe(
    'readings of 1 day could not be read and are not in it. Nothing was removed from the browser; the log names the days.',
  );
  expect(leftOutText({ days: 0, events: 1, photos: 2 })).toBe(
    '1 event and 2 photos could not be read and are not in it. Nothing was removed from the browser.',
  );
});
