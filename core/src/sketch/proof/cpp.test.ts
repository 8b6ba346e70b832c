/** The engine in C++, compiled here and run beside the one in TypeScript: it must answer the same at every step. */
import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, readdirSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { beforeAll, describe, expect, test } from 'vitest';
import { BORDERS } from './bordersForTests.ts';
import {
  contactProofOfDay,
  contactProofsIn,
  firstDifference,
  proofOfDay,
  type NamedProof,
  proofsIn,
  signalProofs,
} from './proofForTests.ts';

const ENGINE = fileURLToPath(new URL('../../../../engine/', import.meta.url));
const VECTOR_FILES = readdirSync(join(ENGINE, 'vectors')).sort();
const CONTACT_FILES = readdirSync(join(ENGINE, 'contacts')).sort();
const proofsOfFile = (name: string) => proofsIn(readFileSync(join(ENGINE, 'vectors', name), 'utf8'));

/** What a strict compiler lets through; a sanitiser stops whatever the language leaves undefined. */
const FLAGS = [
  '-std=gnu++11',
  '-O1',
  '-Wall',
  '-Wextra',
  '-Werror',
  '-fsanitize=undefined',
  '-fno-sanitize-recover=all',
];
const folder = mkdtempSync(join(tmpdir(), 'trowel-'));
const program = join(folder, 'proof');
/** As boards get it: looked at each second, and with volumes of 32 bits where the board is small. */
const asOnBoards = join(folder, 'boards');

beforeAll(() => {
  for (const [made, flags] of [
    [program, []],
    [asOnBoards, ['-DTROWEL_EACH_SECOND', '-DTROWEL_SMALL']],
  ] as const) {
    const ran = spawnSync('g++', [...FLAGS, ...flags, '-o', made, join(ENGINE, 'cpp/proof.cpp')], {
      encoding: 'utf8',
    });
    if (ran.error) throw new Error('These tests need g++: apt-get install g++');
    expect(ran.stderr).toBe('');
  }
});

/** Without the second at which it wants to be called again: a board that looks each second is not asked. */
const withoutNext = (row: string): string => {
  const [first = '', ...events] = row.split(' : ');
  return [[...first.split(' ').slice(0, -2), first.split(' ').at(-1)].join(' '), ...events].join(' : ');
};

/** What a garden may set for a small board; beyond it the program is refused. */
const isForSmall = (text: string): boolean =>
  [...text.matchAll(/"(flowMlPerMin|dailyMaxMl)":(\d+)/g)].every((one) => Number(one[2]) <= 1_000_000) &&
  [...text.matchAll(/"hoursMl":\[([^\]]*)\]/g)].every((one) =>
    (one[1] ?? '').split(',').every((ml) => Number(ml) <= 80_000_000 / 25),
  );

function differs(traces: readonly NamedProof[], made = program): string | null {
  const input = `${traces.flatMap(({ proof }) => proof.told).join('\n')}\n`;
  const ran = spawnSync(made, { input, encoding: 'utf8', maxBuffer: 2 ** 30 });
  if (ran.status !== 0) return `ended with ${ran.status}: ${ran.stderr}`;
  return firstDifference(traces, ran.stdout.trimEnd().split('\n'));
}

describe('the engine in C++', () => {
  test.each(VECTOR_FILES)('answers every call of %s as is written there', (name) => {
    expect(differs(proofsOfFile(name))).toBeNull();
  });

  test('as boards get it, every call of every trace that such a board may be given', () => {
    const traces = VECTOR_FILES.flatMap((name) => {
      const file = JSON.parse(readFileSync(join(ENGINE, 'vectors', name), 'utf8')) as { traces: object[] };
      const some = file.traces.filter((one) => isForSmall(JSON.stringify(one)));
      return proofsIn(JSON.stringify({ ...file, traces: some }));
    });
    expect(traces.length).toBeGreaterThan(700);
    const input = `${traces.flatMap(({ proof }) => proof.told).join('\n')}\n`;
    const ran = spawnSync(asOnBoards, { input, encoding: 'utf8', maxBuffer: 2 ** 30 });
    expect(ran.status, ran.stderr).toBe(0);
    const asked = traces.map(({ name, proof }) => ({
      name,
      proof: { told: proof.told, asked: proof.asked.map(withoutNext) },
    }));
    const said = ran.stdout
      .trimEnd()
      .split('\n')
      .map((row) => withoutNext(row.trim()));
    expect(firstDifference(asked, said)).toBeNull();
  });

  test('and of days on which something lies exactly on a border', () => {
    expect(differs(BORDERS)).toBeNull();
  });

  const DAYS = process.env.TROWEL_LONG ? 300 : 4;
  test(`and of ${DAYS} further days of ten thousand steps`, { timeout: 2_400_000 }, () => {
    for (let seed = 1; seed <= DAYS; seed += 1) {
      const day = proofOfDay(seed, 10_000);
      expect(day.proof.asked.length).toBeGreaterThan(9000);
      expect(differs([day])).toBeNull();
    }
  });

  test('an answer that is not as it was written is found, and named', () => {
    const [first] = proofsOfFile(VECTOR_FILES[0] ?? '');
    if (!first) throw new Error('no trace');
    const { told, asked } = first.proof;
    const wrong = { name: 'wrong', proof: { told, asked: [...asked.slice(0, -1), '1 1 1'] } };
    expect(differs([wrong])).toContain(`wrong, call ${asked.length - 1}`);
  });
});

describe('contacts in C++', () => {
  test('answer every call of every trace as is written there, also as boards get them', () => {
    const traces = CONTACT_FILES.flatMap((name) =>
      contactProofsIn(readFileSync(join(ENGINE, 'contacts', name), 'utf8')),
    );
    expect(traces).toHaveLength(425);
    expect(differs(traces)).toBeNull();
    expect(differs(traces, asOnBoards)).toBeNull();
  });

  const DAYS = process.env.TROWEL_LONG ? 300 : 12;
  test(`and of ${DAYS} further days`, { timeout: 600_000 }, () => {
    expect(differs(Array.from({ length: DAYS }, (_, at) => contactProofOfDay(at, 100_000)))).toBeNull();
  });
});

test('lamps in C++ show what those of the page do, in 2000 made-up plots', () => {
  expect(differs(signalProofs(2000))).toBeNull();
});
