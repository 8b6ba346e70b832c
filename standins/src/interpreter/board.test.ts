/** The board's program in MicroPython, run by the real interpreter: what it keeps, what can be changed at its console, and how it ends. */
import { beforeAll, describe, expect, test } from 'vitest';
import { loadProgram } from '@plain-trowel/core/sketch/loader/load';
import { BoardOnALine, optionsFor, programOf, PUMP } from './boardForTests.ts';

/** 50 tenths of a percent by the program's table: far below its start limit of 40 %. */
const DRY = 2900 * 16;

let files: ReadonlyMap<string, Uint8Array>;
beforeAll(async () => {
  const line = new BoardOnALine();
  await line.board.boot();
  expect(await loadProgram(line, programOf('abc000000001', 300), optionsFor(line))).toMatchObject({
    ok: true,
  });
  files = line.board.files();
});

/** Just switched on, in dry soil. Its pump gives 10 ml a second, 300 ml a dose, at most 1000 ml a day, a minute apart. */
async function boardInDrySoil(): Promise<BoardOnALine> {
  const line = new BoardOnALine();
  line.raw = DRY;
  await line.board.boot(files);
  return line;
}

const recordsOf = (line: BoardOnALine): readonly (readonly [string, Uint8Array])[] =>
  [...line.board.files()].filter(([path]) => path.startsWith('/trowel_kept/'));

describe('what it keeps through a reboot', () => {
  test('is the water of the day: after the power was cut it is counted on, and its minimum interval holds first', async () => {
    const line = await boardInDrySoil();
    await line.seconds(95);
    expect(await line.ask('why')).toMatch(/^# line 1 rests dose-interval today 300 ml\n/);
    await line.board.cutPower();
    await line.seconds(59);
    expect(await line.ask('why')).toMatch(/rests (min|dose)-interval today 300 ml/);
    await line.seconds(5);
    expect(line.board.levelOf(PUMP)).toBe(1);
  });

  test('is what is left of a skip: nothing is watered before it is over, and orders by hand go on', async () => {
    const line = await boardInDrySoil();
    await line.seconds(5);
    expect(await line.ask('skip 1 7200')).toBe('# taken\n');
    await line.seconds(3700);
    expect(await line.ask('why')).toMatch(/# line 1 rests switched-off today 0 ml\n# skip 1 3[45]\d\d s/);
    await line.board.cutPower();
    await line.seconds(65);
    // It was written down an hour before it was over by a bit; the hour is counted, the time without power is not.
    expect(line.board.levelOf(PUMP)).toBe(0);
    expect(await line.ask('why')).toMatch(/# skip 1 3[45]\d\d s/);
    await line.ask('give 1 100');
    await line.seconds(2);
    expect(line.board.levelOf(PUMP)).toBe(1);
    await line.seconds(3600);
    expect(await line.ask('why')).not.toContain('# skip');
    expect(await line.ask('why')).toMatch(/today [4-9]\d\d ml/);
    expect(await line.ask('skip 1 2764801')).toMatch(/^# no: skip LINE SECONDS/);
    await line.ask('skip 1 600');
    expect(await line.ask('skip 1 0')).toBe('# taken\n');
    expect(await line.ask('why')).not.toContain('# skip');
  });

  test('a run that the power cut off counts with all that it might have given', async () => {
    const line = await boardInDrySoil();
    await line.seconds(65);
    expect(line.board.levelOf(PUMP)).toBe(1);
    await line.board.cutPower();
    expect(line.board.levelOf(PUMP)).toBe(0);
    await line.seconds(1);
    expect(await line.ask('why')).toContain('today 300 ml');
  });

  test('a pump whose start pulls the board down, again and again, uses up its day and is held', async () => {
    const line = await boardInDrySoil();
    for (let turn = 0; turn < 6; turn += 1) {
      for (let second = 0; second < 70 && line.board.levelOf(PUMP) !== 1; second += 1) await line.seconds(1);
      if (line.board.levelOf(PUMP) === 1) await line.board.cutPower();
    }
    await line.seconds(200);
    expect(line.board.levelOf(PUMP)).toBe(0);
    expect(await line.ask('why')).toMatch(/rests (daily-max|locked|waiting-for-rise)/);
  });

  test('a record that was cut off leaves the one before it', async () => {
    const line = await boardInDrySoil();
    await line.seconds(95);
    const records = recordsOf(line);
    const [newest] = records.toSorted(([one], [other]) => numberIn(other) - numberIn(one));
    const [path, bytes] = newest ?? ['', new Uint8Array()];
    await line.board.boot(new Map([[path, bytes.slice(0, 20)]]));
    await line.seconds(1);
    expect(await line.ask('why')).toContain('today 300 ml');
  });

  test('where nothing of it can be read any more, the day counts as used', async () => {
    const line = await boardInDrySoil();
    await line.seconds(95);
    await line.board.boot(new Map(recordsOf(line).map(([path]) => [path, new Uint8Array([120])])));
    await line.seconds(70);
    expect(line.board.levelOf(PUMP)).toBe(0);
    expect(await line.ask('why')).toContain('rests daily-max today 1000 ml');
  });

  test('goes round in sixteen files', async () => {
    const line = await boardInDrySoil();
    for (let turn = 0; turn < 20; turn += 1) {
      await line.ask('give 1 10');
      await line.seconds(3);
    }
    expect(recordsOf(line)).toHaveLength(16);
  });
});

const numberIn = (path: string): number => Number(path.split('/').at(-1));

describe('what can be changed at its console', () => {
  test('limits and dose, at once, and only within the guards that stand in the program', async () => {
    const line = await boardInDrySoil();
    expect(await line.ask('limits')).toContain('# limits 1 start 40.0 dose 300 water on\n');
    expect(await line.ask('set 1 start 3.5')).toBe('# taken 1 start 3.5\n');
    await line.seconds(90);
    expect(line.levels).not.toContain(`${PUMP} 1`);
    expect(await line.ask('set 1 start 40')).toBe('# taken 1 start 40\n');
    expect(await line.ask('set 1 dose 20')).toBe('# taken 1 dose 20\n');
    await line.seconds(1);
    expect(line.board.levelOf(PUMP)).toBe(1);
    await line.seconds(2);
    expect(line.board.levelOf(PUMP)).toBe(0);
    const refused: readonly (readonly [string, string])[] = [
      ['set 1 dose 611', 'maximum run of 60 s'],
      ['set 1 dose 1001', 'daily maximum of 1000 ml'],
      ['set 1 dose 0', 'whole number'],
      ['set 1 start 100.1', 'percent'],
      ['set 1 start -5', 'percent'],
      ['set 1 start 4,5', 'percent'],
      ['set 1 stop 50', 'no such setting'],
      ['set 1 max_run 600', 'no such setting'],
      ['set 2 start 40', 'set LINE'],
      ['set 1 water maybe', 'on or off'],
      ['set', 'set LINE'],
    ];
    for (const [typed, why] of refused) {
      const said = await line.ask(typed);
      expect(said).toMatch(/^# no: /);
      expect(said).toContain(why);
    }
    expect(await line.ask('limits')).toContain('# limits 1 start 40.0 dose 20 water on\n');
  });

  test('switched off it waters no more by itself, and still when ordered', async () => {
    const line = await boardInDrySoil();
    await line.ask('set 1 water off');
    await line.seconds(70);
    expect(line.levels).not.toContain(`${PUMP} 1`);
    expect(await line.ask('give 1 30')).toBe('# taken\n');
    line.said = '';
    await line.seconds(5);
    expect(line.said).toContain('# started 1 order 3 s');
    expect(line.said).toContain('# stopped 1 dose-done 3 s 30 ml');
  });

  test('what was saved holds through a reboot, what was not does not, and another program begins with its own', async () => {
    const line = await boardInDrySoil();
    await line.ask('set 1 start 30');
    expect(await line.ask('save')).toMatch(/^# taken/);
    await line.ask('set 1 start 20');
    await line.board.cutPower();
    expect(await line.ask('limits')).toContain('start 30.0');
    expect(await loadProgram(line, programOf('abc000000002'), optionsFor(line))).toMatchObject({ ok: true });
    expect(await line.ask('limits')).toContain('start 40.0');
  });

  test('an order by hand goes through the guards of run, day, tank and lock', async () => {
    const line = await boardInDrySoil();
    line.raw = 1500 * 16;
    await line.ask('give 1 900');
    line.said = '';
    await line.seconds(70);
    // 900 ml would take 90 s; the maximum run ends it at 60.
    expect(line.said).toContain('# stopped 1 max-run 60 s 600 ml');
    await line.ask('give 1 500');
    line.said = '';
    await line.seconds(60);
    expect(line.said).toContain('# stopped 1 daily-max 40 s 400 ml');
    line.said = '';
    await line.ask('test pump 1 3s');
    await line.seconds(2);
    expect(line.said).toContain('# refused 1 daily-max');
  });
});

test('a tank by distance: mm of the echo, and a line that rests where no echo comes back', async () => {
  let us: number | null = 2915;
  const line = new BoardOnALine({ echo: (pin) => (pin === 27 ? us : null) });
  line.raw = DRY;
  const program = programOf('abc000000003', 300);
  const settings = program.files.find((one) => one.name === 'settings.py')?.text ?? '';
  const withTank = settings
    .replace('INPUTS = [', 'INPUTS = [("distance", (26, 27), "tank"), ')
    .replace('FED_BY = (None,)', 'FED_BY = (None, None)')
    .replace('SOURCES = [0]', 'SOURCES = [1]')
    .replace('TANK_INPUTS = ()', 'TANK_INPUTS = (0,)')
    .replace('tank=None', 'tank=0')
    .replace(
      'tanks=[]',
      'tanks=[Fields(minimum_raw=800, falls_with_water=True, low_raw=100, high_raw=900, stale_after_s=30)]',
    );
  await line.board.boot();
  const files3 = program.files.map((one) => (one.name === 'settings.py' ? { ...one, text: withTank } : one));
  expect(await loadProgram(line, { ...program, files: files3 }, optionsFor(line))).toMatchObject({
    ok: true,
  });
  expect(await line.ask('raw')).toBe('tank=499 c2=2900\n');
  us = null;
  await line.seconds(100);
  expect(await line.ask('raw')).toBe('c2=2900\n');
  expect(line.levels).not.toContain(`${PUMP} 1`);
  expect(await line.ask('why')).toContain('tank-unknown');
  us = 2915;
  await line.seconds(3);
  expect(line.board.levelOf(PUMP)).toBe(1);
});

describe('how it ends', () => {
  test('a program that hangs is restarted by the watchdog, its outputs off', async () => {
    const line = await boardInDrySoil();
    await line.seconds(65);
    expect(line.board.levelOf(PUMP)).toBe(1);
    const boots = line.board.boots;
    await line.board.hang(7000);
    expect(line.board.boots).toBe(boots);
    await line.board.hang(2000);
    expect(line.board.boots).toBe(boots + 1);
    expect(line.board.levelOf(PUMP)).toBe(0);
  });

  test('interrupted at the prompt it leaves no output on', async () => {
    const line = await boardInDrySoil();
    await line.seconds(65);
    await line.type('\u0003');
    expect(line.board.isRunning).toBe(false);
    expect(line.board.levelOf(PUMP)).toBe(0);
  });

  test('a pin that cannot be read ends in a restart, not in a pump that runs on', async () => {
    let isBroken = false;
    const line = new BoardOnALine({ analog: () => (isBroken ? null : DRY) });
    await line.board.boot(files);
    await line.seconds(65);
    expect(line.board.levelOf(PUMP)).toBe(1);
    isBroken = true;
    await line.seconds(3);
    expect(line.said).toContain('# stopped by');
    expect(line.board.boots).toBeGreaterThan(1);
    expect(line.board.levelOf(PUMP)).toBe(0);
  });

  test('odd letters, long lines and half a command at its console hurt nothing', async () => {
    const line = await boardInDrySoil();
    for (const typed of [
      '\u0001\u0002\u0007',
      'x'.repeat(5000),
      'set 1',
      '\u00e9\u00ff',
      'give 1 1e9',
      'clock 9 9',
    ])
      expect(await line.ask(typed)).toMatch(/^(# no: .*\n)*$/);
    expect(await line.ask('version')).toContain('# version 1 abc000000001 engine 1');
  });
});
