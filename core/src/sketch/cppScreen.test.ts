/** Small displays, written to by the program in C++ bit by bit, and read here as eyes would: as dots. */
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { beforeAll, describe, expect, test } from 'vitest';
import { compiled, CPP, planOf, played } from '../../../engine/cpp/host/compiled.ts';
import { displayPages, type DisplayValues } from '../control/display.ts';
import { forCpp } from './fits.ts';
import type { BoardPlan, SketchDisplay } from './plan.ts';
import { withLamps } from './playForTests.ts';
import { TextPanel } from './textPanelForTests.ts';

const ADDRESS = 60;
const at = (number: number) => ({ kind: 'pin', number }) as const;
const DISPLAY: SketchDisplay = {
  name: 'Display',
  watch: 0,
  sda: at(21),
  scl: at(22),
  address: ADDRESS,
  of: 'dots',
  raw: 0,
  temperature: null,
  battery: null,
  tank: null,
  words: ['dry', 'low', 'right', 'wet', 'flooded'],
  edges: [150, 300, 700, 850],
  scale: 'percent',
  unit: '% span',
};

/** By state: what it says. "Content" has the longest text that people may write. */
const TEXTS: Readonly<Record<string, string>> = {
  content: '{word} {percent}|alongwordthatisbroken in two|{nothing} {word}}|{raw} {tank}|',
  'too-dry': 'Water me: {word}|  blanks around {percent}  |sixteen letters. and one more line and more',
  'too-wet': 'fifteen letters {raw}|sixteen letters1 {word}|{battery} {temperature}',
  'probe-fault': 'Probe? {percent} {word} {raw}',
};

const shown = withLamps({ ...planOf(), traits: '3.3 V Wi-Fi board' });
const plan: BoardPlan = {
  ...shown,
  displays: [DISPLAY],
  signals: shown.signals.map((one) => ({ ...one, display: TEXTS[one.state] ?? one.state })),
  // No line waters meanwhile.
  engine: { ...shown.engine, lines: shown.engine.lines.map((line) => ({ ...line, enabled: false })) },
};
const stick = 200 + (plan.inputs[0]?.pin.number ?? 0);

/** By letter its dots, as the program's font has them: eight rows of five. */
const FONT = (() => {
  const text = readFileSync(join(CPP, 'font.h'), 'utf8');
  const bytes = [...(text.split('PROGMEM = {')[1]?.split('}')[0] ?? '').matchAll(/0x(..)/g)].map(
    ([, byte]) => byte ?? '',
  );
  return new Map(
    Array.from({ length: 95 }, (_, place) => [
      bytes.slice(place * 5, place * 5 + 5).join(''),
      String.fromCharCode(32 + place),
    ]),
  );
})();

/** A display as its sheet has it: a window of columns and pages, filled column by column, page by page. */
class Panel {
  readonly columns = Array.from({ length: 8 }, () => new Uint8Array(128));
  begun = 0;
  private window = { left: 0, right: 127, top: 0, bottom: 7 };
  private here = { column: 0, page: 0 };

  take(hex: string): void {
    const bytes = [...hex.matchAll(/../g)].map(([one]) => Number.parseInt(one, 16));
    if (bytes[0] === 0x40) for (const byte of bytes.slice(1)) this.put(byte);
    else if (bytes[1] === 0xae) this.begun += 1;
    else if (bytes[1] === 0x21 && bytes[4] === 0x22) {
      const [, , left = 0, right = 0, , top = 0, bottom = 0] = bytes;
      this.window = { left, right, top, bottom };
      this.here = { column: left, page: top };
    } else throw new Error(`what is ${hex}?`);
  }
  private put(byte: number): void {
    const page = this.columns[this.here.page];
    if (page) page[this.here.column] = byte;
    this.here.column += 1;
    if (this.here.column <= this.window.right) return;
    this.here = {
      column: this.window.left,
      page: this.here.page === this.window.bottom ? this.window.top : this.here.page + 1,
    };
  }
  /** Rows of dots of a letter, twice as high as the font. */
  dots(line: number, letter: number): string[] {
    return Array.from({ length: 16 }, (_, row) =>
      Array.from({ length: 8 }, (__, column) => {
        const bits = this.columns[1 + 4 * line + Math.floor(row / 8)]?.[letter * 8 + column] ?? 0;
        return ((bits >> (row % 8)) & 1) === 1 ? '#' : '.';
      }).join(''),
    );
  }
  private letter(line: number, place: number): string {
    const rows = this.dots(line, place);
    const bytes = Array.from({ length: 5 }, (_, column) => {
      const bits = Array.from({ length: 8 }, (__, row) =>
        rows[2 * row]?.[column + 1] === '#' ? 1 << row : 0,
      );
      return bits
        .reduce((sum, one) => sum | one, 0)
        .toString(16)
        .padStart(2, '0');
    });
    return FONT.get(bytes.join('')) ?? '\u25a1';
  }
  text(): string {
    return [0, 1]
      .map((line) =>
        Array.from({ length: 16 }, (_, place) => this.letter(line, place))
          .join('')
          .trimEnd(),
      )
      .join('/');
  }
}

let program = '';
beforeAll(() => {
  const board = compiled(plan, '-O1');
  expect(board.said).toBe('');
  ({ program } = board);
});

/** What stood on the display, one after the other, and the panel at the end. */
function shownBy(
  rows: readonly string[],
  ran = program,
  address = ADDRESS,
): { texts: string[]; panel: Panel } {
  const panel = new Panel();
  const texts: string[] = [];
  let drawn = 0;
  for (const line of played(ran, [`o 21 22 ${address} 1`, ...rows])) {
    const frame = new RegExp(`^wrote ${address} (\\w+)$`).exec(line)?.[1];
    if (frame === undefined) continue;
    panel.take(frame);
    // Two lines of a window and two halves each.
    drawn = frame.startsWith('00') && !frame.startsWith('0021007f22') ? 0 : drawn + 1;
    const isFilling = frame.startsWith('40') && !frame.startsWith('00');
    const text = panel.text();
    if (isFilling && drawn % 3 === 0 && texts.at(-1) !== text) texts.push(text);
  }
  return { texts, panel };
}

const pagesOf = (state: string, values: Partial<DisplayValues>): string[] =>
  displayPages(TEXTS[state] ?? '', {
    percent: null,
    raw: null,
    word: 'unknown',
    temperature: null,
    battery: null,
    tank: null,
    ...values,
  }).map(({ lines }) => `${lines[0] ?? ''}/${lines[1] ?? ''}`);

describe('a display in C++', () => {
  // By the calibration of the test garden 2900 counts are dry and 1100 wet.
  test.each([
    ['content', 1900, { word: 'right', percent: '55.6 % span', raw: '1900' }],
    ['too-dry', 2600, { word: 'low', percent: '16.7 % span', raw: '2600' }],
    ['too-wet', 1300, { word: 'flooded', percent: '88.9 % span', raw: '1300' }],
  ] as const)('says of a plot that is %s what the page shows, page by page', (state, raw, values) => {
    const { texts } = shownBy([`a ${stick} ${raw}`, 'w 700', 'w 40']);
    // Whole rounds of its pages at the end, from whichever page on.
    const asked = pagesOf(state, values);
    const whole = texts.filter((one) => asked.includes(one));
    for (const page of asked) expect(whole, page).toContain(page);
    const order = whole.slice(-3 * asked.length).map((one) => asked.indexOf(one));
    for (const [place, page] of order.slice(1).entries())
      expect((page - (order[place] ?? 0) + asked.length) % asked.length).toBe(1);
  });

  test('says that it does not know when the plug is out', () => {
    const { texts } = shownBy([`a ${stick} 1900`, 'w 700', `a ${stick} 4095`, 'w 30']);
    expect(texts.at(-1)).toBe(pagesOf('probe-fault', { raw: '4095' })[0]);
  });

  test('its letters look like letters: an A, twice as high as it is drawn', () => {
    const only = { ...plan, signals: plan.signals.map((one) => ({ ...one, display: 'Ap' })) };
    const { panel } = shownBy([`a ${stick} 1900`, 'w 20'], compiled(only, '-O1').program);
    const twice = (rows: readonly string[]) => rows.flatMap((row) => [row, row]);
    expect(panel.dots(0, 0)).toEqual(
      twice(['...#....', '..#.#...', '.#...#..', '.#...#..', '.#####..', '.#...#..', '.#...#..', '........']),
    );
    // Its tail stands below the line.
    expect(panel.dots(0, 1)).toEqual(
      twice(['........', '........', '.####...', '.#...#..', '.#...#..', '.####...', '.#......', '.#......']),
    );
    expect(panel.begun).toBe(1);
  });

  test('that was unplugged is begun anew, and nothing else waits for it', () => {
    const { panel, texts } = shownBy([
      `a ${stick} 2600`,
      'w 700',
      `o 21 22 ${ADDRESS} 0`,
      'w 30',
      `o 21 22 ${ADDRESS} 1`,
      'w 9',
    ]);
    expect(panel.begun).toBe(2);
    expect(pagesOf('too-dry', { word: 'low', percent: '16.7 % span' })).toContain(texts.at(-1));
    const readings = played(program, [`a ${stick} 2600`, 'w 20']).filter((line) => line.includes('c2=2600'));
    expect(readings).toHaveLength(10);
  });

  test('an 8-bit board leaves it dark and says so', () => {
    const small = forCpp({ ...plan, traits: '5 V 8-bit board' });
    expect(small.displays).toEqual([]);
    expect(small.leftOut.map(({ kind }) => kind)).toEqual(['display-in-python']);
  });
});

describe('displays without a lamp beside them', () => {
  const scales = ['counts', 'tension', 'switch'] as const;
  let board = '';
  beforeAll(() => {
    const made = compiled(
      {
        ...plan,
        lamps: [],
        displays: scales.map((scale, place) => ({ ...DISPLAY, scale, address: ADDRESS + place })),
        signals: plan.signals.map((one) => ({ ...one, display: '{percent}' })),
      },
      '-O1',
    );
    expect(made.said).toBe('');
    board = made.program;
  });
  test.each([
    ['counts', 0, '1900 counts/'],
    ['tension', 1, '44.4 kPa/'],
    ['switch', 2, 'wet side/'],
  ] as const)('write what has no percent as %s', (_, place, asked) => {
    const { texts } = shownBy([`a ${stick} 1900`, 'w 700'], board, ADDRESS + place);
    expect(texts.at(-1)).toBe(asked);
  });
});

describe('a text display in C++', () => {
  const port = 39;
  // Beside one of dots.
  const letters: BoardPlan = { ...plan, displays: [DISPLAY, { ...DISPLAY, of: 'letters', address: port }] };
  let board = '';
  beforeAll(() => {
    const made = compiled(letters, '-O1');
    expect(made.said).toBe('');
    board = made.program;
  });
  const panelAfter = (panel: TextPanel, ...rows: readonly string[]): TextPanel => {
    for (const line of played(board, [`o 21 22 ${port} 1`, ...rows]))
      for (const [, hex = ''] of line.matchAll(new RegExp(`^wrote ${port} (\\w+)$`, 'g')))
        for (const [byte] of hex.matchAll(/../g)) panel.take(Number.parseInt(byte, 16));
    return panel;
  };

  test('shows what a display of dots does, with its light on', () => {
    const panel = panelAfter(new TextPanel(), `a ${stick} 2600`, 'w 700');
    expect(panel).toMatchObject({ isOn: true, isLit: true, hasTwoLines: true });
    expect(pagesOf('too-dry', { word: 'low', percent: '16.7 % span' })).toContain(panel.text());
  });
  test('is brought to its senses from whatever it was in the middle of', () => {
    for (const before of [
      [0x34, 0x30, 0x24, 0x20],
      [0x24, 0x20, 0x44, 0x40],
      [0x85, 0x81],
    ]) {
      const panel = new TextPanel();
      for (const byte of before) panel.take(byte);
      panelAfter(panel, `a ${stick} 4095`, 'w 30');
      expect(panel.text()).toMatch(/^Probe\? \?/);
    }
  });
});
