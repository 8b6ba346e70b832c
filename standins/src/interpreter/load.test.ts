/** A program is put onto a board over its serial line: the real interpreter answers, and lines are cut, slow or full. */
import { describe, expect, test } from 'vitest';
import {
  loadProgram,
  type LoadOptions,
  type LoadProgress,
  type Program,
} from '@plain-trowel/core/sketch/loader/load';
import { BoardOnALine, optionsFor, programOf, PUMP } from './boardForTests.ts';

const CUTS = process.env.TROWEL_LONG ? 60 : 4;

const OLD = programOf('01dcafe00001');
const NEW = programOf('feed00000002');

const load = (line: BoardOnALine, program: Program, more: Partial<LoadOptions> = {}) =>
  loadProgram(line, program, optionsFor(line, more));

let oldFiles: ReadonlyMap<string, Uint8Array> | null = null;
/** A board on which the old program was loaded, and runs. */
async function boardWithOld(): Promise<BoardOnALine> {
  const line = new BoardOnALine();
  await line.board.boot(oldFiles ?? new Map());
  if (!oldFiles) expect(await load(line, OLD)).toMatchObject({ ok: true });
  oldFiles ??= line.board.files();
  return line;
}

/** What it says of itself. */
async function versionOf(line: BoardOnALine): Promise<string> {
  line.said = '';
  await line.type('version\n');
  await line.wait(10);
  return /# version (\d+ [0-9a-z]+)/.exec(line.said)?.[1] ?? `silent: ${line.said.slice(-100)}`;
}

test('a latching valve is shut before anything is written, and at each start of its program', async () => {
  const SHUTS = 21;
  const line = new BoardOnALine();
  await line.board.boot();
  const loaded = await load(line, {
    ...NEW,
    rest: [
      [PUMP, 0],
      [SHUTS, 0],
      [SHUTS, 0, 60],
    ],
  });
  expect(loaded).toMatchObject({ ok: true });
  const pulses = () => line.levels.filter((one) => one === `${SHUTS} 1`).length;
  // Once while it was loaded, once by the starter.
  expect(pulses()).toBe(2);
  expect(line.levels.filter((one) => one.startsWith(`${SHUTS} `)).at(-1)).toBe(`${SHUTS} 0`);
  await line.type('load\n');
  await line.wait(2);
  expect(pulses()).toBe(3);
});

describe.each(['has', 'says-no', 'unknown'] as const)('a board whose raw paste is: %s', (paste) => {
  test('takes a program, restarts, and says its first lines', async () => {
    const line = new BoardOnALine();
    line.paste = paste;
    await line.board.boot();
    const told: LoadProgress[] = [];
    const loaded = await load(line, NEW, { onProgress: (one) => told.push(one) });

    expect(loaded).toMatchObject({ ok: true, number: 1 });
    expect(loaded.ok && loaded.firstLines.join('\n')).toMatch(/c2=\d+/);
    expect(told.at(-1)?.doneLetters).toBe(told.at(-1)?.allLetters);
    expect(await versionOf(line)).toBe('1 feed00000002');
  });

  test('takes another one beside the first, and keeps the first as a backup', async () => {
    const line = await boardWithOld();
    line.paste = paste;
    expect(await load(line, NEW)).toMatchObject({ ok: true, number: 2 });
    expect(await versionOf(line)).toBe('2 feed00000002');
    const kept = line.board.files().get('/trowel_a/settings.py');
    expect(new TextDecoder().decode(kept)).toContain(OLD.name);
  });
});

describe('a pump that runs', () => {
  test('is off before anything is interrupted, and stays off while the program is written', async () => {
    const line = await boardWithOld();
    line.raw = 2900 * 16;
    await line.seconds(62);
    expect(line.levels.at(-1)).toBe(`${PUMP} 1`);
    const from = line.levels.length;
    expect(await load(line, NEW)).toMatchObject({ ok: true });
    expect(line.levels[from]).toBe(`${PUMP} 0`);
    expect(line.levels.slice(from)).not.toContain(`${PUMP} 1`);
  });

  test(
    'is off after the line was cut anywhere, with or without a reset, and the old program runs again',
    { timeout: 600_000 },
    async () => {
      const whole = await boardWithOld();
      whole.leftBytes = 1e9;
      await load(whole, NEW);
      const bytes = 1e9 - whole.leftBytes;
      for (let part = 0; part < CUTS; part += 1) {
        const line = await boardWithOld();
        line.raw = 2900 * 16;
        await line.seconds(62);
        expect(line.levels.at(-1)).toBe(`${PUMP} 1`);
        const cutAt = Math.floor((bytes * (part + 0.37)) / CUTS);
        line.leftBytes = cutAt;
        const loaded = await load(line, NEW);
        line.leftBytes = Infinity;
        // The very last bytes are the restart into the new program, which then runs.
        if (loaded.ok) continue;
        expect(loaded.problem).toBe('line-lost');
        if (cutAt > 10) expect(line.board.levelOf(PUMP)).toBe(0);
        const from = line.levels.length;
        if (part % 2 === 0) await line.board.cutPower();
        else await line.seconds(125);
        expect([...line.levels.slice(from)]).not.toContain(`${PUMP} 1`);
        expect(await versionOf(line)).toMatch(
          cutAt > bytes * 0.98 ? /^[12] / : new RegExp(`^1 ${OLD.name}$`),
        );
      }
    },
  );
});

test('a board whose restarts take its line away is opened again, both times', async () => {
  const line = await boardWithOld();
  line.losesLineAtRestart = true;
  await line.reopen();
  expect(await load(line, NEW)).toMatchObject({ ok: true, number: 2 });
  await line.reopen();
  expect(await versionOf(line)).toBe(`2 ${NEW.name}`);
});

test('stopped by the person in the middle, it restarts into the old program at once', async () => {
  const line = await boardWithOld();
  const stop = new AbortController();
  const loaded = await load(line, NEW, {
    signal: stop.signal,
    onProgress: ({ doneLetters }) => {
      if (doneLetters > 20_000) stop.abort();
    },
  });
  expect(loaded).toMatchObject({ ok: false, problem: 'stopped' });
  await line.seconds(2);
  expect(await versionOf(line)).toBe(`1 ${OLD.name}`);
});

describe('a board on which something else runs', () => {
  const FOREIGN = `
import machine
pin = machine.Pin(${PUMP}, machine.Pin.OUT, value=1)
def forever():
    while True:
        print('blinking along')
        yield
turns = forever()
`;
  const foreign = async () => {
    const line = new BoardOnALine();
    await line.board.boot(new Map([['/main.py', new TextEncoder().encode(FOREIGN)]]));
    return line;
  };

  test('is not interrupted before somebody has said so', async () => {
    const line = await foreign();
    expect(await load(line, NEW)).toMatchObject({
      ok: false,
      problem: 'foreign-program',
      said: 'blinking along',
    });
    expect(line.board.isRunning).toBe(true);
  });

  test('then its outputs are set to rest, its start is kept under another name, and the new program starts', async () => {
    const line = await foreign();
    expect(await load(line, NEW, { interrupt: true })).toMatchObject({ ok: true });
    expect(line.levels.at(-1)).toBe(`${PUMP} 0`);
    expect(new TextDecoder().decode(line.board.files().get('/before_main.py'))).toBe(FOREIGN);
  });
});

test('a line on which nobody answers is told apart from one that is gone', async () => {
  const mute = {
    write: () => Promise.resolve(),
    read: () => Promise.resolve(new Uint8Array()),
    reopen: () => Promise.resolve(false),
  };
  let nowMs = 0;
  const options = { ...optionsFor(new BoardOnALine()), nowMs: () => (nowMs += 50) };
  expect(await loadProgram(mute, NEW, options)).toMatchObject({ problem: 'foreign-program', said: '' });
  expect(await loadProgram(mute, NEW, { ...options, interrupt: true })).toMatchObject({
    problem: 'no-interpreter',
  });
  const gone = { ...mute, write: () => Promise.reject(new Error('gone')) };
  expect(await loadProgram(gone, NEW, options)).toMatchObject({ problem: 'line-lost' });
});

test('a full disk is said, and the old program runs again', async () => {
  const line = await boardWithOld();
  await line.type('load\n');
  await line.wait(100);
  // Writing fails as it does on a full disk.
  await line.type(
    `import builtins\r_open = builtins.open\rdef full(path, mode='r'):\r  if 'trowel_b' in path and 'engine' in path and mode != 'r' and mode != 'rb': raise OSError(28)\r  return _open(path, mode)\r\r\rbuiltins.open = full\r`,
  );
  expect(await load(line, NEW)).toMatchObject({ ok: false, problem: 'disk-full' });
  await line.seconds(2);
  expect(await versionOf(line)).toBe(`1 ${OLD.name}`);
});

test('a program that does not start gives way to the one before it, and it is said', async () => {
  const line = await boardWithOld();
  const broken = {
    ...NEW,
    files: [...NEW.files.slice(1), { name: 'settings.py', text: 'this is no program' }],
  };
  expect(await load(line, broken)).toMatchObject({
    ok: false,
    problem: 'did-not-start',
    said: `# version 1 ${OLD.name} engine 1`,
  });
  expect(await versionOf(line)).toBe(`1 ${OLD.name}`);
});

test('a file that is damaged on the board is noticed at its next start, and the program before it runs', async () => {
  const line = await boardWithOld();
  await load(line, NEW);
  await line.board.boot(new Map([['/trowel_b/engine.py', new Uint8Array([35])]]));
  expect(await versionOf(line)).toBe(`1 ${OLD.name}`);
  // And what is loaded next does not take the place of the only one that is whole.
  expect(await load(line, NEW)).toMatchObject({ ok: true, number: 3 });
  expect(new TextDecoder().decode(line.board.files().get('/trowel_a/settings.py'))).toContain(OLD.name);
});
