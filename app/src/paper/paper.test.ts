import { describe, expect, test } from 'vitest';
import { dealPages, FOOT_MM, HEAD_MM, PAPERS, wrapText } from './paper.ts';

describe('text', () => {
  test('breaks between words and loses none', () => {
    const text = 'push it in no further than its line and keep the plug above the soil';
    const lines = wrapText(text, 40, 3.2);
    expect(lines.join(' ')).toBe(text);
    // 40 mm over 3.2 mm × 0.48 are 26 letters
    for (const line of lines) expect(line.length).toBeLessThanOrEqual(26);
  });
  test('a word longer than the line is cut and says so', () => {
    expect(wrapText('abcdefghijklmnop', 10, 3)).toEqual(['abcde…']);
  });
  test('nothing gives no line', () => {
    expect(wrapText('  ', 40, 3)).toEqual([]);
  });
});

describe('pages', () => {
  const block = (heightMm: number) => ({ heightMm });
  test('blocks follow each other until the page is full', () => {
    const room = PAPERS.A4.height - HEAD_MM - FOOT_MM;
    const pages = dealPages([block(room / 2), block(room / 2), block(10)], 'A4');
    expect(pages.map((page) => page.map((one) => one.topMm))).toEqual([
      [HEAD_MM, HEAD_MM + room / 2],
      [HEAD_MM],
    ]);
  });
  test('a block taller than a page stands alone, and no empty page comes before it', () => {
    expect(dealPages([block(500), block(10)], 'Letter').map((page) => page.length)).toEqual([1, 1]);
  });
  test('no block is one empty page', () => {
    expect(dealPages([], 'A4')).toEqual([[]]);
  });
});
