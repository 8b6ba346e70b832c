/** A board's program in C++, compiled against a board of ours on this computer, and played. */
import { spawnSync } from 'node:child_process';
import { copyFileSync, mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { expect } from 'vitest';
import { planBoard } from '../../../core/src/sketch/boardPlan.ts';
import type { BoardPlan } from '../../../core/src/sketch/plan.ts';
import { cppSize, cppSketch } from '../../../core/src/sketch/cpp.ts';
import { cppSecrets } from '../../../core/src/sketch/cppNetwork.ts';
import { cppFileNames } from '../../../core/src/sketch/files.ts';
import { oneStickOnePump } from '../../../core/src/sketch/gardenForTests.ts';

export const CPP = fileURLToPath(new URL('../', import.meta.url));
export const FLAGS = [
  '-std=gnu++11',
  '-Wall',
  '-Wextra',
  '-Werror',
  '-fsanitize=undefined',
  '-fno-sanitize-recover=all',
];
export const WRITTEN = '2026-11-28';

export const planOf = (): BoardPlan => {
  const { garden, boardId } = oneStickOnePump();
  const planned = planBoard(garden, boardId);
  if (!planned.ok) throw new Error(JSON.stringify(planned.problems));
  return planned.plan;
};

export const KEY = 'ab'.repeat(20);
/** As whoever compiles it fills it in. */
const filledIn = (secrets: string): string =>
  secrets
    .replace('WIFI ""', 'WIFI "Hare & Hounds"')
    .replace('PASSWORD ""', 'PASSWORD "a b"')
    .replace('KEY ""', `KEY "${KEY}"`);

/** A program where it lies, or what the compiler said. */
type Compiled = { readonly program: string; readonly said: string };

/** Compiles a program, with its secrets filled in. */
export const compiled = (plan: BoardPlan, ...more: string[]): Compiled =>
  compileWith(plan, filledIn(cppSecrets(plan)), more);

/** Compiles a program with nothing changed. */
export const compiledAsHandedOut = (plan: BoardPlan, ...more: string[]): Compiled =>
  compileWith(plan, cppSecrets(plan), more);

function compileWith(plan: BoardPlan, secrets: string, more: readonly string[]): Compiled {
  const folder = mkdtempSync(join(tmpdir(), 'trowel-'));
  writeFileSync(join(folder, 'sketch.cpp'), cppSketch(plan, WRITTEN));
  writeFileSync(join(folder, 'engine_size.h'), cppSize(plan));
  if (plan.network) writeFileSync(join(folder, 'secrets.h'), secrets);
  // What a person gets, and nothing else.
  for (const name of cppFileNames(plan)) copyFileSync(join(CPP, name), join(folder, name));
  const program = join(folder, 'board');
  const made = spawnSync(
    'g++',
    [
      ...FLAGS,
      ...more,
      `-I${folder}`,
      `-I${join(CPP, 'host')}`,
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

/** Plays rows on the board. @param memory the file that its EEPROM lies in */
export function played(program: string, rows: readonly string[], memory = ''): string[] {
  const ran = spawnSync(program, {
    input: `${rows.join('\n')}\n`,
    encoding: 'utf8',
    maxBuffer: 2 ** 28,
    env: { ...process.env, TROWEL_EEPROM: memory },
  });
  expect(ran.status, ran.stderr).toBe(0);
  return ran.stdout.trimEnd().split('\n');
}
