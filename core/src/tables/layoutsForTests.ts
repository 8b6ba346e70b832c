/** Made-up tables as loggers, spreadsheets and home servers write them, with what they truly say. Written without a look at how they are read. */
import { readingsOfDay } from '../records/series.ts';
import type { NamedChannel } from './columnNames.ts';
import { guessTable } from './guess.ts';
import { readTable } from './readTable.ts';

type MadeUp = {
  readonly text: string;
  readonly about: string;
  /** By channel, time and value, as they were before they were written. */
  readonly truth: ReadonlyMap<string, readonly (readonly [number, number])[]>;
};

type Dice = () => number;
const oneOf = <T>(dice: Dice, list: readonly T[]): T => {
  const found = list[Math.floor(dice() * list.length)];
  if (found === undefined) throw new Error('oneOf: an empty list');
  return found;
};
const two = (value: number) => String(value).padStart(2, '0');
const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'];

const formats = new Map<string, Intl.DateTimeFormat>();

/** The zone's clock at a moment, by the platform's own calendar. */
function clockOf(ms: number, timeZone: string) {
  const format =
    formats.get(timeZone) ??
    new Intl.DateTimeFormat('en-US', {
      timeZone,
      year: 'numeric',
      month: 'numeric',
      day: 'numeric',
      hour: 'numeric',
      minute: 'numeric',
      second: 'numeric',
      hourCycle: 'h23',
    });
  formats.set(timeZone, format);
  const parts = format.formatToParts(ms);
  const of = (type: string) => Number(parts.find((part) => part.type === type)?.value);
  return { y: of('year'), mo: of('month'), d: of('day'), h: of('hour'), mi: of('minute'), s: of('second') };
}
type Clock = ReturnType<typeof clockOf>;

const dateForms: readonly (readonly [string, (c: Clock) => string])[] = [
  ['y-m-d', (c) => `${c.y}-${two(c.mo)}-${two(c.d)}`],
  ['y/m/d', (c) => `${c.y}/${two(c.mo)}/${two(c.d)}`],
  ['d.m.y', (c) => `${two(c.d)}.${two(c.mo)}.${c.y}`],
  ['d.m.yy short', (c) => `${c.d}.${c.mo}.${String(c.y).slice(2)}`],
  ['d/m/y', (c) => `${two(c.d)}/${two(c.mo)}/${c.y}`],
  ['m/d/y', (c) => `${c.mo}/${c.d}/${c.y}`],
  ['m/d/yy', (c) => `${two(c.mo)}/${two(c.d)}/${String(c.y).slice(2)}`],
  ['d-m-y', (c) => `${two(c.d)}-${two(c.mo)}-${c.y}`],
  ['d mon y', (c) => `${c.d} ${MONTHS[c.mo - 1] ?? ''} ${c.y}`],
  ['mon d, y', (c) => `${MONTHS[c.mo - 1] ?? ''} ${c.d}, ${c.y}`],
  ['d-mon-yy', (c) => `${two(c.d)}-${MONTHS[c.mo - 1] ?? ''}-${String(c.y).slice(2)}`],
  ['ymd', (c) => `${c.y}${two(c.mo)}${two(c.d)}`],
];
const clockForms: readonly (readonly [string, (c: Clock) => string])[] = [
  ['h:m:s', (c) => `${two(c.h)}:${two(c.mi)}:${two(c.s)}`],
  ['h:m', (c) => `${two(c.h)}:${two(c.mi)}`],
  ['am/pm', (c) => `${c.h % 12 === 0 ? 12 : c.h % 12}:${two(c.mi)}:${two(c.s)} ${c.h < 12 ? 'AM' : 'PM'}`],
  ['h:m:s.mmm', (c) => `${two(c.h)}:${two(c.mi)}:${two(c.s)}.000`],
];

type Series = {
  readonly channel: NamedChannel;
  readonly title: string;
  readonly write: (value: number) => string;
  readonly decimals: number;
};

/** How a channel may be headed, and how its numbers are then written. */
function headed(dice: Dice, channel: NamedChannel, comma: boolean): Series {
  const number = (decimals: number) => (value: number) =>
    comma ? value.toFixed(decimals).replace('.', ',') : value.toFixed(decimals);
  const { plot, probe } = channel;
  switch (channel.quantity) {
    case 'moisture':
      return {
        channel,
        title: oneOf(dice, [
          probe,
          `${plot} ${probe}`,
          `${plot} moisture`,
          plot,
          `${probe} raw`,
          `${plot} (counts)`,
          `${probe}_moisture`,
          ...channel.names,
        ]),
        decimals: 0,
        write: number(0),
      };
    case 'soil temperature': {
      const fahrenheit = dice() < 0.3;
      const title = oneOf(dice, [`${plot} soil temp`, `${probe} temperature`, `${plot} temperature`]);
      return {
        channel,
        title: fahrenheit
          ? `${title} (°F)`
          : oneOf(dice, [title, `${title} (°C)`, `${title} [C]`, `${title}_C`]),
        decimals: 1,
        write: (value) => number(fahrenheit ? 2 : 1)(fahrenheit ? value * 1.8 + 32 : value),
      };
    }
    default: {
      const milli = dice() < 0.3;
      const title = oneOf(dice, ['Battery', 'battery voltage', 'vbat']);
      return {
        channel,
        title: milli ? `${title} (mV)` : oneOf(dice, [title, `${title} (V)`, `${title} [V]`]),
        decimals: 2,
        write: (value) => (milli ? String(Math.round(value * 1000)) : number(2)(value)),
      };
    }
  }
}

const OTHERS: readonly (readonly [string, (dice: Dice) => string])[] = [
  ['rssi', (dice) => String(-50 - Math.floor(dice() * 40))],
  ['uptime', (dice) => String(Math.floor(dice() * 100_000))],
  ['remark', (dice) => oneOf(dice, ['', '', '', 'ok', 'rain, a little', 'checked'])],
  ['id', (dice) => String(Math.floor(dice() * 9000) + 1000)],
  ['firmware', () => 'v1.4'],
  ['Greenhouse fan', (dice) => (dice() < 0.5 ? 'on' : 'off')],
  ['wind', (dice) => String(Math.floor(dice() * 30))],
];

/** A table of some days of some channels. @param timeZone of the garden */
export function madeUp(dice: Dice, channels: readonly NamedChannel[], timeZone: string): MadeUp {
  const delimiter = oneOf(dice, [',', ';', '\t', ',', ';', '|']);
  const comma = delimiter !== ',' && dice() < 0.5;
  const stepMs = oneOf(dice, [1, 5, 10, 15, 30, 60]) * 60_000;
  const days = oneOf(dice, [1, 2, 3, 20]);
  const rows = Math.min(600, Math.max(6, Math.floor((days * 86_400_000) / stepMs)));
  const startMs = Math.floor((Date.UTC(2025, 0, 1) + dice() * 600 * 86_400_000) / 60_000) * 60_000;
  const chosen = channels.filter(() => dice() < 0.7);
  const series = (chosen.length > 0 ? chosen : channels.slice(0, 1)).map((channel) =>
    headed(dice, channel, comma),
  );
  const times = Array.from({ length: rows }, (_, at) => startMs + at * stepMs);
  const values = series.map(({ channel, decimals }) => {
    const [low, high] =
      channel.quantity === 'moisture'
        ? [900, 2600]
        : channel.quantity === 'soil temperature'
          ? [4, 28]
          : [3.4, 4.2];
    let value = low + dice() * (high - low);
    return times.map(() => {
      value = Math.min(high, Math.max(low, value + (dice() - 0.5) * (high - low) * 0.01));
      return dice() < 0.02 ? null : Number(value.toFixed(decimals));
    });
  });
  const [dateName, date] = oneOf(dice, dateForms);
  const [clockName, clock] = oneOf(dice, clockForms);
  const shape = oneOf(dice, ['one', 'one', 'one', 'two', 'iso-offset', 'since-1970', 'utc'] as const);
  const timeTitle = oneOf(dice, ['time', 'Time', 'Timestamp', 'Date/Time', 'datetime', 'recorded at']);
  const when = (ms: number): string[] => {
    const local = clockOf(ms, shape === 'utc' ? 'UTC' : timeZone);
    if (shape === 'since-1970') return [String(ms / 1000)];
    if (shape === 'iso-offset') {
      const shown = clockOf(ms + 7_200_000, 'UTC');
      return [
        `${shown.y}-${two(shown.mo)}-${two(shown.d)}T${two(shown.h)}:${two(shown.mi)}:${two(shown.s)}+02:00`,
      ];
    }
    return shape === 'two' ? [date(local), clock(local)] : [`${date(local)} ${clock(local)}`];
  };
  const titles = shape === 'two' ? ['Date', 'Time'] : [shape === 'utc' ? `${timeTitle} (UTC)` : timeTitle];
  const quote = dice() < 0.2;
  const cell = (text: string) => (quote || text.includes(delimiter) ? `"${text}"` : text);
  const line = (cells: readonly string[]) => cells.map(cell).join(delimiter);
  const others = OTHERS.filter(() => dice() < 0.2);
  const isLong = dice() < 0.2;
  const header = isLong
    ? [...titles, 'sensor', 'value']
    : [...titles, ...series.map(({ title }) => title), ...others.map(([name]) => name)];
  const nothing = oneOf(dice, ['', '', 'nan', '-']);
  const body = times.flatMap((ms, row) => {
    const cells = series.map(({ write }, at) => {
      const value = values[at]?.[row] ?? null;
      return value === null ? nothing : write(value);
    });
    return isLong
      ? series.map(({ title }, at) => line([...when(ms), title, cells[at] ?? '']))
      : [line([...when(ms), ...cells, ...others.map(([, make]) => make(dice))])];
  });
  if (dice() < 0.2) body.reverse();
  const front = oneOf(dice, [[], [], [], ['# logger 2, garden'], ['My garden log', '']]);
  const end = oneOf(dice, ['\n', '\r\n']);
  const truth = new Map(
    series.map(({ channel }, at) => [
      channel.id,
      times.flatMap((ms, row) => {
        const value = values[at]?.[row] ?? null;
        return value === null ? [] : [[ms, value] as const];
      }),
    ]),
  );
  return {
    text: `${[...front, line(header), ...body].join(end)}${end}`,
    about: `${dateName} ${clockName} ${shape} "${delimiter}" ${comma ? 'comma' : 'point'} ${isLong ? 'long' : 'wide'} ${header.join(' | ')}`,
    truth,
  };
}

const of = (id: string, plot: string, probe: string, rest: Partial<NamedChannel>): NamedChannel => ({
  id,
  quantity: 'moisture',
  unit: 'raw counts',
  meant: null,
  plot,
  probe,
  board: 'Shed board',
  names: [probe],
  decides: true,
  ...rest,
});
const degrees = (id: string, plot: string, probe: string) =>
  of(id, plot, probe, {
    quantity: 'soil temperature',
    unit: '°C',
    decides: false,
    names: [`${probe} soil temperature`],
  });

export const CHANNELS: readonly NamedChannel[] = [
  of('a', 'Herb trough', 'H1', { names: ['H1', 'soil1'] }),
  of('b', 'Tomato tub', 'T1', { names: ['T1', 'soil2'] }),
  of('c', 'North lawn', 'N3', { names: ['N3', 'n3'] }),
  degrees('d', 'Herb trough', 'H1'),
  degrees('e', 'North lawn', 'N3'),
  of('f', '', '', { quantity: 'battery voltage', unit: 'V', decides: false, names: ['Battery', 'vbat'] }),
];
const ZONE = 'Europe/Berlin';
const NOW = Date.UTC(2026, 10, 29);

/** mulberry32 */
export function seeded(seed: number): () => number {
  let state = seed;
  return () => {
    state = (state + 0x6d_2b_79_f5) | 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4_294_967_296;
  };
}

export type Verdict = 'right' | 'asked' | 'wrong';

/** A made-up layout, and what becomes of it: right at once, asked or told, or wrong without a word. */
export function judgeLayout(seed: number): {
  readonly verdict: Verdict;
  readonly why: string;
  readonly about: string;
} {
  const one = madeUp(seeded(seed), CHANNELS, ZONE);
  return { ...judge(one), about: one.about };
}

function judge({ text, truth }: MadeUp): { readonly verdict: Verdict; readonly why: string } {
  const guess = guessTable(text, { channels: CHANNELS, timeZone: ZONE, nowMs: NOW });
  if (!guess.ok) return { verdict: 'asked', why: guess.issue };
  const { layout, questions } = guess.value;
  if (questions.length > 0) return { verdict: 'asked', why: questions.map(({ kind }) => kind).join(' ') };
  const { days, problems } = readTable(text, layout, CHANNELS);
  if (problems.length > 0) return { verdict: 'asked', why: JSON.stringify(problems[0]) };
  const read = new Map<string, (readonly [number, number])[]>();
  for (const day of days)
    read.set(day.channelId, [
      ...(read.get(day.channelId) ?? []),
      ...readingsOfDay(day).map(({ timeMs, raw }) => [timeMs, raw] as const),
    ]);
  const told = (map: ReadonlyMap<string, unknown>, id: string) => JSON.stringify(map.get(id) ?? []);
  const all = new Set([...truth.keys(), ...read.keys()]);
  const unlike = [...all].filter((id) => told(truth, id) !== told(read, id));
  // Left out is told on the screen; it is not taken for right, nor is it wrong.
  const missing = unlike.filter((id) => !read.has(id));
  if (unlike.length === 0) return { verdict: 'right', why: '' };
  return unlike.length === missing.length
    ? { verdict: 'asked', why: `left out ${missing.join(' ')}` }
    : { verdict: 'wrong', why: unlike.join(' ') };
}
