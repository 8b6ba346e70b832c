import { describe, expect, test } from 'vitest';
import type { NamedChannel } from './columnNames.ts';
import { guessTable } from './guess.ts';
import { readTable } from './readTable.ts';
import { readingsOfDay } from '../records/series.ts';

const named = (id: string, plot: string, probe: string, rest: Partial<NamedChannel> = {}): NamedChannel => ({
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

/** Two beds with a stick each, a thermometer at one, a battery. */
const CHANNELS: readonly NamedChannel[] = [
  named('m1', 'Herb bed', 'M1', { names: ['M1', 's1'] }),
  named('m2', 'Lawn edge', 'M2', { names: ['M2', 's2'] }),
  named('t1', 'Herb bed', 'M1', {
    quantity: 'soil temperature',
    unit: '°C',
    decides: false,
    names: ['M1 soil temperature', 't1'],
  }),
  named('bat', '', '', {
    quantity: 'battery voltage',
    unit: 'V',
    decides: false,
    names: ['Battery', 'vbat'],
  }),
];
const NOW = Date.UTC(2026, 10, 29);
const context = { channels: CHANNELS, timeZone: 'Europe/London', nowMs: NOW };

const guess = (text: string) => {
  const result = guessTable(text, context);
  if (!result.ok) throw new Error(result.issue);
  return result.value;
};
/** What a table says, guessed and read: channel, ISO time, value. */
const read = (text: string) => {
  const { layout } = guess(text);
  return readTable(text, layout, CHANNELS).days.flatMap((day) =>
    readingsOfDay(day).map(({ timeMs, raw }) => `${day.channelId} ${new Date(timeMs).toISOString()} ${raw}`),
  );
};
const asked = (text: string) => guess(text).questions.map(({ kind }) => kind);

describe('columns are known by their names and units', () => {
  test('a plot, a probe, the name that its board prints; what belongs to none is left out and told', () => {
    const text =
      'time,Herb bed,s2,rssi\n2026-05-03 14:00:00,1844,1902,-61\n2026-05-03 14:10:00,1845,1903,-60\n';
    expect(asked(text)).toEqual([]);
    expect(guess(text).leftOut).toEqual([{ name: 'rssi', why: 'no-channel', unit: null }]);
    // London is an hour ahead of UTC in May.
    expect(read(text)).toEqual([
      'm1 2026-05-03T13:00:00.000Z 1844',
      'm1 2026-05-03T13:10:00.000Z 1845',
      'm2 2026-05-03T13:00:00.000Z 1902',
      'm2 2026-05-03T13:10:00.000Z 1903',
    ]);
  });

  test('°F and mV are turned into what the channels record', () => {
    const text =
      'time;Herb bed temp (°F);battery mV\n2026-05-03 14:00;50,9;3712\n2026-05-03 14:10;68,0;3705\n';
    expect(asked(text)).toEqual([]);
    // (50.9 - 32) / 1.8 = 10.5
    expect(read(text)).toContain('t1 2026-05-03T13:00:00.000Z 10.5');
    expect(read(text)).toContain('t1 2026-05-03T13:10:00.000Z 20');
    expect(read(text)).toContain('bat 2026-05-03T13:00:00.000Z 3.712');
  });

  test('percent are never taken for counts: said where there is a unit, asked where there is none', () => {
    const percent = 'time,Herb bed (%),Lawn edge\n2026-05-03 14:00,41,1902\n2026-05-03 14:10,42,1903\n';
    expect(guess(percent).leftOut).toEqual([{ name: 'Herb bed', why: 'unit', unit: '%' }]);
    expect(asked('time,Herb bed\n2026-05-03 14:00,41\n2026-05-03 14:10,42\n')).toEqual(['counts']);
  });

  test('a board that prints a quarter of its battery: volts are turned back, a number alone is asked about', () => {
    const divided: NamedChannel = {
      ...named('bat', '', '', { quantity: 'battery voltage', decides: false, names: ['Battery'] }),
      unit: 'as the board prints it',
      meant: { unit: 'V', gain: 4, offset: 0 },
    };
    const look = (text: string) => guessTable(text, { ...context, channels: [divided] });
    const table = (title: string) => `time,${title}\n2026-05-03 14:00,3.66\n2026-05-03 14:10,3.65\n`;
    const volts = look(table('Battery (V)'));
    if (!volts.ok) throw new Error(volts.issue);
    expect(volts.value.questions).toEqual([]);
    // 3.66 V ÷ 4 = 0.915, which the correction makes 3.66 V again.
    expect(readTable(table('Battery (V)'), volts.value.layout, [divided]).first[0]?.raw).toBe(0.915);
    expect(look(table('Battery'))).toMatchObject({
      value: { questions: [{ kind: 'corrected', channelId: 'bat' }] },
    });
  });

  test('soil of 68 degrees is asked about', () => {
    expect(asked('time,Herb bed temperature\n2026-05-03 14:00,68.2\n2026-05-03 14:10,68.0\n')).toEqual([
      'degrees',
    ]);
  });

  test('two columns for one channel, and words that nobody knows, are questions', () => {
    expect(asked('time,M1,Herb bed\n2026-05-03 14:00,1800,1810\n2026-05-03 14:10,1801,1811\n')).toEqual([
      'which-channel',
      'which-channel',
    ]);
    expect(asked('time,Herb bed north\n2026-05-03 14:00,1800\n2026-05-03 14:10,1801\n')).toEqual([
      'which-channel',
    ]);
  });

  test('part of a plot’s name is a question; what is said of a plot is not said of a board', () => {
    expect(guess('time,Lawn\n2026-05-03 14:00,1800\n2026-05-03 14:10,1801\n').questions).toEqual([
      { kind: 'which-channel', column: 1, name: null, unit: null, ids: ['m2'] },
    ]);
    const battery = 'time,Lawn edge battery (V)\n2026-05-03 14:00,3.7\n2026-05-03 14:10,3.7\n';
    expect(asked(battery)).toEqual([]);
    expect(guess(battery).leftOut).toEqual([{ name: 'Lawn edge battery', why: 'no-channel', unit: null }]);
  });

  test('a name that says only what it measures is any channel that measures it', () => {
    const air: NamedChannel = named('air', '', '', {
      quantity: 'air temperature',
      unit: '°C',
      decides: false,
      names: ['Air under the hatch'],
    });
    const look = (title: string) =>
      guessTable(`time,${title}\n2026-05-03 14:00,17.5\n2026-05-03 14:10,17.6\n`, {
        ...context,
        channels: [...CHANNELS, air],
      });
    expect(look('temperature')).toMatchObject({
      value: { questions: [{ kind: 'which-channel', ids: ['t1', 'air'] }] },
    });
    expect(look('air temperature')).toMatchObject({ value: { questions: [] } });
    expect(asked('time,battery\n2026-05-03 14:00,3.7\n2026-05-03 14:10,3.7\n')).toEqual([]);
    expect(asked('time,moisture\n2026-05-03 14:00,1800\n2026-05-03 14:10,1801\n')).toEqual(['which-channel']);
  });

  test('one reading a row, each under its name', () => {
    const text =
      'when|sensor|what|reading\n2026-05-03T14:00:00Z|M1|raw|1844\n2026-05-03T14:00:00Z|M1|temperature|17.5\n2026-05-03T14:00:00Z|M9|raw|1\n';
    expect(asked(text)).toEqual([]);
    expect(read(text)).toEqual(['m1 2026-05-03T14:00:00.000Z 1844', 't1 2026-05-03T14:00:00.000Z 17.5']);
    expect(guess(text).leftOut).toEqual([{ name: 'M9 raw', why: 'no-channel', unit: null }]);
  });
});

describe('days and months', () => {
  const table = (rows: readonly string[]) => `time,M1\n${rows.map((row) => `${row},1800`).join('\n')}\n`;

  test('a day that could be a month is asked about, with the date', () => {
    const text = table(['03/05/2026 10:00', '03/05/2026 10:10', '03/05/2026 10:20']);
    expect(guess(text).questions).toEqual([{ kind: 'order', orders: ['dmy', 'mdy'], example: '03/05/2026' }]);
  });

  test('a number above 12 anywhere in the table tells, also far behind its beginning', () => {
    const day = (d: number) =>
      Array.from(
        { length: 144 },
        (_, at) =>
          `${String(d).padStart(2, '0')}/05/2026 ${String(Math.floor(at / 6)).padStart(2, '0')}:${at % 6}0`,
      );
    const late = table([...Array.from({ length: 13 }, (_, at) => day(at + 1)).flat()]);
    expect(asked(late)).toEqual([]);
    expect(guess(late).layout.time).toBe('dmy');
  });

  test('readings that run on over midnight tell; days apart by themselves do not', () => {
    const nights = ['04/05/2026 23:40', '04/05/2026 23:50', '05/05/2026 00:00', '05/05/2026 00:10'];
    expect(guess(table(nights)).layout.time).toBe('dmy');
    const american = ['05/04/2026 23:40', '05/04/2026 23:50', '05/05/2026 00:00', '05/05/2026 00:10'];
    expect(guess(table(american)).layout.time).toBe('mdy');
    expect(asked(table(american))).toEqual([]);
    // Once a month on the fifth, or three days in May: nothing tells.
    expect(asked(table(['03/05/2026 08:00', '04/05/2026 08:00', '05/05/2026 08:00']))).toEqual(['order']);
  });

  test('the future is no place for a reading', () => {
    // 12 November has not come a month later than 29 November: 11 December is ahead.
    expect(guess(table(['11/12/2026 08:00', '11/12/2026 09:00'])).layout.time).toBe('mdy');
  });

  test('points mean day first, four digits in front year first, names speak for themselves', () => {
    expect(read(table(['3.5.2026 10:00', '3.5.2026 10:10']))[0]).toBe('m1 2026-05-03T09:00:00.000Z 1800');
    expect(read(table(['2026/05/03 10:00', '2026/05/03 10:10']))[0]).toBe('m1 2026-05-03T09:00:00.000Z 1800');
    expect(read('time;M1\nMay 3, 2026 1:05 PM;1800\nMay 3, 2026 1:15 PM;1800\n')[0]).toBe(
      'm1 2026-05-03T12:05:00.000Z 1800',
    );
    expect(read(table(['3 May 2026 10:00', '3 May 2026 10:10']))[0]).toBe('m1 2026-05-03T09:00:00.000Z 1800');
  });

  test('day and time in two columns; seconds since 1970; days of a spreadsheet', () => {
    expect(read('Date;Time;M1\n03.05.2026;10:00;1800\n03.05.2026;10:10;1801\n')).toEqual([
      'm1 2026-05-03T09:00:00.000Z 1800',
      'm1 2026-05-03T09:10:00.000Z 1801',
    ]);
    expect(read('ts,M1\n1777800000,1800\n1777800600,1801\n')[0]).toBe('m1 2026-05-03T09:20:00.000Z 1800');
    expect(read('Date;M1\n46145,5;1800\n46145,506944444;1801\n')[0]).toBe('m1 2026-05-03T11:00:00.000Z 1800');
    expect(read('time;Herb bed temperature\n2026-01-03 10:00;−2,5\n2026-01-03 10:10;-2,6\n')[0]).toBe(
      't1 2026-01-03T10:00:00.000Z -2.5',
    );
    // 46145.5 is noon of 3 May 2026 in a spreadsheet.
    expect(read('Date,M1\n46145.5,1800\n46145.506944444,1801\n')).toEqual([
      'm1 2026-05-03T11:00:00.000Z 1800',
      'm1 2026-05-03T11:10:00.000Z 1801',
    ]);
  });

  test('days without times are asked about, and count from noon', () => {
    const text = 'Date,M1\n2026-05-03,1800\n2026-05-04,1801\n';
    expect(asked(text)).toEqual(['day-only']);
    expect(read(text)[0]).toBe('m1 2026-05-03T11:00:00.000Z 1800');
  });
});

describe('clocks', () => {
  test('an offset in the text, or UTC in the name of the column, is believed', () => {
    expect(read('time,M1\n2026-05-03T10:00:00+02:00,1800\n2026-05-03T10:10:00+02:00,1801\n')[0]).toBe(
      'm1 2026-05-03T08:00:00.000Z 1800',
    );
    expect(read('Time (UTC),M1\n2026-05-03 10:00,1800\n2026-05-03 10:10,1801\n')[0]).toBe(
      'm1 2026-05-03T10:00:00.000Z 1800',
    );
  });

  const october = ['01:30', '01:40', '01:50', '01:00', '01:10', '01:20', '01:30'];
  test('an hour that comes twice in October goes on, forward and backward', () => {
    const rows = october.map((time) => `2026-10-25 ${time},1800`);
    const times = [30, 40, 50, 60, 70, 80, 90].map(
      (min) => `m1 ${new Date(Date.UTC(2026, 9, 25, 0, min)).toISOString()} 1800`,
    );
    expect(read(`time,M1\n${rows.join('\n')}\n`)).toEqual(times);
    const falling = ['2026-10-25 02:00,1800', ...rows.toReversed()];
    expect(read(`time,M1\n${falling.join('\n')}\n`).slice(0, 7)).toEqual(times);
  });

  test('an hourly logger writes one time twice: the second is an hour later, of each thing that has rows of its own', () => {
    const wide =
      'time,M1\n2026-10-25 00:30,1800\n2026-10-25 01:30,1801\n2026-10-25 01:30,1802\n2026-10-25 02:30,1803\n';
    const times = (text: string) => read(text).map((row) => row.slice(3, 22) + row.slice(27));
    expect(read(wide).map((row) => row.slice(14, 19))).toEqual(['23:30', '00:30', '01:30', '02:30']);
    const rows = ['00:30', '01:30', '01:30', '02:30'].flatMap((time) => [
      `2026-10-25 ${time},M1,1800`,
      `2026-10-25 ${time},M2,1900`,
    ]);
    const long = times(`time,probe,value\n${rows.join('\n')}\n`);
    expect(long.map((row) => row.slice(11, 16))).toEqual([
      '23:30',
      '00:30',
      '01:30',
      '02:30',
      '23:30',
      '00:30',
      '01:30',
      '02:30',
    ]);
  });

  test('an hour that no clock in London showed is a wrong row, with its line', () => {
    const text = 'time,M1\n2026-03-29 00:50,1800\n2026-03-29 01:10,1800\n2026-03-29 02:10,1800\n';
    expect(readTable(text, guess(text).layout, CHANNELS).problems).toEqual([
      { kind: 'no-such-hour', line: 3, text: '2026-03-29 01:10' },
    ]);
  });
});

describe('numbers', () => {
  const rows = (one: string, other: string) =>
    `time;Herb bed temperature\n2026-05-03 10:00;${one}\n2026-05-03 10:10;${other}\n`;

  test('a comma before one or two digits is a decimal one; before three it is asked', () => {
    expect(read(rows('17,5', '17,25'))).toContain('t1 2026-05-03T09:00:00.000Z 17.5');
    expect(asked(rows('17,500', '17,250'))).toEqual(['decimal']);
    expect(asked('time;M1\n2026-05-03 10:00;1.844\n2026-05-03 10:10;1.845\n')).toContain('decimal');
    expect(asked('time;M1\n2026-05-03 10:00;1.844,5\n2026-05-03 10:10;1.845\n')).toEqual([]);
  });

  test('cells of nothing are no readings; words are wrong rows', () => {
    const text =
      'time,M1\n2026-05-03 10:00,\n2026-05-03 10:10,nan\n2026-05-03 10:20,1800\n2026-05-03 10:30,many\n';
    const result = readTable(
      text,
      guess('time,M1\n2026-05-03 10:00,1800\n2026-05-03 10:20,1801\n').layout,
      CHANNELS,
    );
    expect(result).toMatchObject({ readings: 1, nothing: 2, rows: 4 });
    expect(result.problems).toEqual([{ kind: 'number', line: 5, column: 'M1', text: 'many' }]);
  });
});

describe('shapes', () => {
  test('lines above the header, comments, the header again, and an empty cell too many', () => {
    const text = [
      '# logger 3',
      'Garden log;;',
      'Time;M1;M2',
      '2026-05-03 10:00;1800;1900;',
      '# restarted',
      'Time;M1;M2',
      '2026-05-03 10:10;1801;1901',
      '2026-05-03 10:20;1802',
      '',
    ].join('\r\n');
    expect(asked(text)).toEqual([]);
    expect(read(text)).toHaveLength(5);
  });

  test('no header: the columns have no names, and nothing is taken in by itself', () => {
    const { layout, leftOut } = guess('2026-05-03 10:00,1800\n2026-05-03 10:10,1801\n');
    expect(layout.headerLine).toBe(0);
    expect(layout.columns.map(({ role }) => role.kind)).toEqual(['time', 'leave-out']);
    expect(leftOut).toHaveLength(1);
  });

  test('a first row in which nothing was measured hides neither the names nor what they say', () => {
    const text =
      'Time (UTC),probe,value\n2026-05-03 10:00,M1,\n2026-05-03 10:00,M2,1900\n2026-05-03 10:10,M1,1801\n';
    expect(asked(text)).toEqual([]);
    expect(read(text)).toEqual(['m1 2026-05-03T10:10:00.000Z 1801', 'm2 2026-05-03T10:00:00.000Z 1900']);
  });

  test('a row of units below the names', () => {
    const text =
      'time,Herb bed temperature,M1\n,°F,counts\n2026-05-03 10:00,68,1800\n2026-05-03 10:10,68,1801\n';
    expect(asked(text)).toEqual([]);
    expect(read(text)).toContain('t1 2026-05-03T09:00:00.000Z 20');
  });

  test('decimal commas that were cut in two are refused, not read as whole numbers', () => {
    const cut = guessTable('time,M1,M2\n2026-05-03 10:00,12,5,1800\n2026-05-03 10:10,12,6,1801\n', context);
    expect(cut).toEqual({ ok: false, issue: 'cut' });
  });

  test('a file that was cut off within its last row says so', () => {
    const whole = 'time,M1,M2\n2026-05-03 10:00,1800,1900\n2026-05-03 10:10,1801,1901\n';
    const cut = `${whole}2026-05-03 10:20,18`;
    expect(readTable(cut, guess(whole).layout, CHANNELS).problems).toEqual([
      { kind: 'columns', line: 4, found: 2, wanted: 3 },
    ]);
  });

  test('what is no table says why', () => {
    const issue = (text: string) => {
      const result = guessTable(text, context);
      return result.ok ? null : result.issue;
    };
    expect(issue('')).toBe('empty');
    expect(issue('\u0000\u0001\u0002')).toBe('binary');
    expect(issue('Dear diary,\nit rained.\n')).toBe('no-table');
    expect(issue('millis,M1\n1000,1800\n2000,1801\n')).not.toBeNull();
  });

  test('newest first comes out oldest first', () => {
    expect(
      read('time,M1\n2026-05-03 10:10,1801\n2026-05-03 10:00,1800\n').map((row) => row.slice(-4)),
    ).toEqual(['1800', '1801']);
  });
});
