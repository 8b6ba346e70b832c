/** The board's program in C++: written, compiled against a board of ours, and played beside the engine of the page. */
import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { REASON_CODES } from '../control/codes.ts';
import type { Reason } from '../control/contract/reasons.ts';
import { NOT_THE_ENGINES } from '../control/vectors/runScript.ts';
import { EMPTY_NETLIST } from '../wiring/netlist.ts';
import { planBoard, type BoardPlan } from './boardPlan.ts';
import { cppSize, cppSketch } from './cpp.ts';
import { cppProblems, ramBytes } from './fits.ts';
import { pinOfName } from './pins.ts';
import { rawAt, switchesOfPage } from './playForTests.ts';
import { forComment, forString } from './safeText.ts';
import { oneStickOnePump } from './gardenForTests.ts';

const CPP = fileURLToPath(new URL('../../../engine/cpp/', import.meta.url));
const FLAGS = [
  '-std=gnu++11',
  '-Wall',
  '-Wextra',
  '-Werror',
  '-fsanitize=undefined',
  '-fno-sanitize-recover=all',
];
const WRITTEN = '2026-11-28';

const planOf = (): BoardPlan => {
  const { garden, boardId } = oneStickOnePump();
  const planned = planBoard(garden, boardId);
  if (!planned.ok) throw new Error(JSON.stringify(planned.problems));
  return planned.plan;
};

/** Compiles a program; gives where it lies, or what the compiler said. */
function compiled(plan: BoardPlan, ...more: string[]): { program: string; said: string } {
  const folder = mkdtempSync(join(tmpdir(), 'trowel-'));
  writeFileSync(join(folder, 'sketch.cpp'), cppSketch(plan, WRITTEN));
  writeFileSync(join(folder, 'engine_size.h'), cppSize(plan));
  const program = join(folder, 'board');
  const made = spawnSync(
    'g++',
    [
      ...FLAGS,
      ...more,
      `-I${folder}`,
      `-I${CPP}`,
      '-include',
      join(CPP, 'host/host.h'),
      '-o',
      program,
      join(folder, 'sketch.cpp'),
      join(CPP, 'host/host.cpp'),
    ],
    { encoding: 'utf8' },
  );
  if (made.error) throw new Error('These tests need g++: apt-get install g++');
  return { program, said: made.stderr };
}

/** Plays rows on the board. */
function played(program: string, rows: readonly string[]): string[] {
  const ran = spawnSync(program, { input: `${rows.join('\n')}\n`, encoding: 'utf8', maxBuffer: 2 ** 28 });
  expect(ran.status, ran.stderr).toBe(0);
  return ran.stdout.trimEnd().split('\n');
}

/** On and off of a pin, as "second level". */
const switchesOf = (lines: readonly string[], pin: number) =>
  lines.filter((line) => !line.startsWith('>') && line.split(' ')[1] === String(pin));

describe('one stick, one pump', () => {
  const plan = planOf();
  const { program, said } = compiled(plan, '-O1');
  // Analog inputs of the board on the computer are numbered from 200 on.
  const stick = 200 + (plan.inputs[plan.sensorInputs[0] ?? 0]?.pin.number ?? 0);
  const pump = plan.lines[0]?.output.pin.number ?? 0;

  test('compiles without a warning', () => expect(said).toBe(''));

  test('outputs are off before anything else, and stay off while the soil is wet', () => {
    const lines = played(program, [`a ${stick} 1300`, 'w 4000']);
    expect(lines[0]).toBe(`0 ${pump} 0`);
    expect(switchesOf(lines, pump)).toHaveLength(1);
  });

  test('what it prints is what the page reads: the names of the channels', () => {
    const lines = played(program, [`a ${stick} 1512`, 'w 2']);
    expect(lines.at(-1)).toMatch(/(^> |\s)c2=1512(\s|$)/);
  });

  test('over a day it waters at the very seconds at which the engine of the page does', () => {
    const rows = Array.from({ length: 40_000 }, (_, at) => [`a ${stick} ${rawAt(at + 1)}`, 'w 1']).flat();
    const asked = [
      `0 ${pump} 0`,
      ...switchesOfPage(plan, 40_000).map((one) => one.replace(' ', ` ${pump} `)),
    ];
    expect(asked.length).toBeGreaterThan(6);
    expect(switchesOf(played(program, rows), pump)).toEqual(asked);
  });

  test('the console: help, reasons, an order that the guards hold, and rubbish', () => {
    const lines = played(program, [
      `a ${stick} 1300`,
      'w 3',
      'c ?',
      'c why',
      'c test pump 1 3',
      'w 10',
      'c test pump 9 3',
      'c hello',
      'c test pump 1 99999999999999',
      'w 1',
    ]);
    expect(lines).toContain('> # ? raw why version');
    expect(lines.some((line) => /^> # line 1 rests: [a-z-]+, ml of the day 0/.test(line))).toBe(true);
    expect(switchesOf(lines, pump)).toEqual([`0 ${pump} 0`, `4 ${pump} 1`, `7 ${pump} 0`]);
    expect(lines).toContain('> # not understood; ? for help');
    expect(lines.filter((line) => line === '> # test pump LINE SECONDS')).toHaveLength(2);
  });

  test('a relay that is on when low is high from the first moment', () => {
    const low = {
      ...plan,
      lines: plan.lines.map((one) => ({ ...one, output: { ...one.output, activeLow: true } })),
    };
    const board = compiled(low);
    expect(board.said).toBe('');
    expect(played(board.program, [`a ${stick} 1300`, 'w 5'])[0]).toBe(`0 ${pump} 1`);
  });

  test.each([
    ['no pump', { lines: [], engine: { ...plan.engine, lines: [] }, around: [] }],
    [
      'nothing but a pump',
      {
        inputs: [],
        sensorInputs: [],
        engine: {
          ...plan.engine,
          sensors: [],
          lines: plan.engine.lines.map((one) => ({ ...one, sensor: null })),
        },
      },
    ],
  ])('a board with %s compiles as well', (_, change) => {
    const board = compiled({ ...plan, ...change });
    expect(board.said).toBe('');
    expect(
      played(board.program, ['w 100', 'c why', 'c raw', 'c test pump 1 3', 'w 5']).length,
    ).toBeGreaterThan(0);
  });

  test('a board of twelve bits is asked for them: at first it would give a quarter of the counts', () => {
    expect(played(program, [`a ${stick} 3001`, 'w 2']).at(-1)).toContain('c2=3001');
    expect(cppSize({ ...plan, adcBits: 10 })).not.toContain('TROWEL_ADC_BITS');
  });

  test('a contact whose wire is off reads open, and does not float', () => {
    const contact = {
      ...plan.inputs[0],
      name: 'rain',
      label: 'Rain',
      reads: 'digital',
      pin: { kind: 'pin', number: 9 },
      channelId: 'rain',
    } as const;
    const board = compiled({ ...plan, inputs: [...plan.inputs, contact] });
    const said = played(board.program, [`a ${stick} 1300`, 'w 12']).filter((line) => line.includes('rain='));
    expect(said.length).toBeGreaterThan(4);
    for (const line of said) expect(line).toContain('rain=1');
  });

  test('a danger that somebody has accepted stands at the top, whatever its words', () => {
    const text = cppSketch(plan, WRITTEN, 'I know:\n#error */ the fuse comes on Monday');
    expect(text).toContain(
      '// THE WIRING HAS A DANGER. It was written all the same: I know: #error * / the fuse comes on Monday.',
    );
    expect(cppSketch(plan, WRITTEN)).not.toContain('DANGER');
  });

  test('only types of stated width', () => {
    const files = ['engine.h', 'board.h'].map((name) => readFileSync(join(CPP, name), 'utf8'));
    const text = [cppSketch(plan, WRITTEN), ...files]
      .join('\n')
      .replace(/\/\/.*$/gm, '')
      .replace(/"[^"]*"/g, '""');
    expect(text).not.toMatch(/\b(int|long|short|unsigned|float|double)\b/);
  });
});

test('the numbers and names of reasons are those of the contract, in either language', () => {
  const [engine, board] = ['engine.h', 'board.h'].map((name) => readFileSync(join(CPP, name), 'utf8'));
  const python = ['engine.py', 'board.py'].map((name) => readFileSync(join(CPP, '../python', name), 'utf8'));
  for (const [reason, code] of Object.entries(REASON_CODES)) {
    if (NOT_THE_ENGINES.includes(reason as Reason)) continue;
    const name = reason === 'order' ? 'BY_ORDER' : reason.toUpperCase().replace(/-/g, '_');
    expect(engine).toMatch(new RegExp(`\\b${name} = ${code}\\b`));
    expect(board).toContain(`case ${code}: return "${reason}";`);
    expect(python[0]).toMatch(new RegExp(`^${name} = ${code}$`, 'm'));
    expect(python[1]).toContain(`${code}: "${reason}",`);
  }
});

describe('what is missing is named, and nothing is written half', () => {
  const { garden, boardId } = oneStickOnePump();
  const problems = (change: typeof garden) => {
    const planned = planBoard(change, boardId);
    return planned.ok ? [] : planned.problems.map(({ kind, what }) => `${kind}: ${what}`);
  };
  test('no wiring: nobody knows the pin of the pump', () =>
    expect(problems({ ...garden, wiring: EMPTY_NETLIST })).toEqual(['no-output-pin: Roof pump']));
  test('a stick whose input has no number', () =>
    expect(
      problems({
        ...garden,
        channels: garden.channels.map((one) => ({ ...one, pin: 'the left one' })),
      }),
    ).toEqual(['no-input-pin: C2']));
  test('no calibration', () =>
    expect(
      problems({ ...garden, channels: garden.channels.map((one) => ({ ...one, calibrationId: null })) }),
    ).toContain('not-calibrated: Roof pump'));
  test('settings that contradict themselves', () =>
    expect(
      problems({ ...garden, waterLines: garden.waterLines.map((one) => ({ ...one, dailyMaxMl: 50 })) }),
    ).toContain('contradiction: Roof pump'));
});

test.each([
  ['P35', { kind: 'pin', number: 35 }],
  ['IN0', { kind: 'input', number: 0 }],
  ['input 2', { kind: 'input', number: 2 }],
  ['a7', { kind: 'input', number: 7 }],
  ['P999', null],
  ['the left one', null],
  ['P3; evil()', null],
] as const)('the pin "%s"', (name, pin) => expect(pinOfName(name)).toEqual(pin));

describe('what a small board can hold', () => {
  const plan = planOf();
  test('is reckoned as a compiler that leaves no gaps lays it out', () => {
    // The sizes of the structures themselves, asked of the compiler.
    const folder = mkdtempSync(join(tmpdir(), 'trowel-'));
    const source = join(folder, 'size.cpp');
    writeFileSync(
      source,
      `#pragma pack(1)
${cppSize(plan)}
#include "engine.h"
#include <stdio.h>
using namespace trowel;
int main() { printf("%zu", sizeof(Config) + sizeof(State) + 2 * sizeof(Input) + sizeof(Answer) + TROWEL_LINES * sizeof(Remembered)); }`,
    );
    const program = join(folder, 'size');
    expect(
      spawnSync('g++', ['-std=gnu++11', `-I${CPP}`, '-o', program, source], { encoding: 'utf8' }).stderr,
    ).toBe('');
    const bytes = Number(spawnSync(program, { encoding: 'utf8' }).stdout);
    const names = 'c2'.length + 'Roof pump'.length + 12;
    expect(Math.abs(ramBytes(plan) - (bytes + names + 400))).toBeLessThan(20);
  });
  test('one line fits, four do not, and a larger board holds them', () => {
    const [line] = plan.engine.lines;
    const [sensor] = plan.engine.sensors;
    if (!line || !sensor) throw new Error('no line');
    const four = {
      ...plan,
      engine: {
        ...plan.engine,
        lines: Array.from({ length: 4 }, () => line),
        sensors: Array.from({ length: 4 }, () => sensor),
      },
    };
    expect(cppProblems(plan)).toEqual([]);
    expect(cppProblems(four)).toMatchObject([{ kind: 'too-large' }]);
    expect(cppProblems({ ...four, traits: '3.3 V Wi-Fi board' })).toEqual([]);
  });
});

describe('names from people', () => {
  const nasty = [
    '*/ evil(); /*',
    '"; evil(); "',
    'a\\',
    'line\nbreak',
    '🌶 chilli',
    '"""',
    "'''",
    '??/',
    '\u2028',
    'x'.repeat(300),
  ];
  test('end no comment, no string and no line', () => {
    for (const name of nasty) {
      expect(forComment(name)).not.toMatch(/[\n\r\\]|\*\/|"""|\?\?/);
      expect(forString(name)).toMatch(/^[ !#-[\]-~]{0,40}$/);
    }
  });
  test('whatever they hold, the program compiles to the same but for its strings', () => {
    const text = fc.oneof(
      fc.string({ maxLength: 60, unit: 'binary' }),
      fc.constantFrom(...nasty),
      fc
        .array(fc.constantFrom('*/', '//', '"', '\\', '\n', '"""', '??/', '#define x', '%n', '🌶'), {
          maxLength: 8,
        })
        .map((parts) => parts.join('')),
    );
    const bare = (program: string) =>
      program.replace(/"[^"\n]*"|\/\/.*$/gm, (found) => (found.startsWith('"') ? '""' : '//'));
    const plan = planOf();
    const plain = bare(cppSketch(plan, WRITTEN));
    fc.assert(
      fc.property(text, text, text, (garden, line, label) => {
        const named = {
          ...plan,
          garden,
          board: label,
          traits: line,
          inputs: plan.inputs.map((one) => ({ ...one, label })),
          lines: plan.lines.map((one) => ({ ...one, name: line })),
        };
        // Every line of it is the same outside of comments and strings: nothing broke out of them.
        expect(bare(cppSketch(named, WRITTEN))).toBe(plain);
      }),
      { numRuns: 2000, seed: 20_261_128 },
    );
  });
  test('and a compiler takes the worst of them', () => {
    const plan = planOf();
    for (const name of nasty.slice(0, 4)) {
      const { said } = compiled(
        {
          ...plan,
          garden: name,
          board: name,
          traits: name,
          lines: plan.lines.map((one) => ({ ...one, name })),
        },
        '-fsyntax-only',
      );
      expect(said).toBe('');
    }
  });
});
