/** Thirty slips in the engine of the boards, each of which the proof must notice. Long: each is compiled and run over vectors. */
import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, readdirSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { expect, test } from 'vitest';
import { BORDERS } from './bordersForTests.ts';
import { firstDifference, proofsIn } from './proofForTests.ts';

const ENGINE = fileURLToPath(new URL('../../../../engine/', import.meta.url));
const VECTOR_FILES = readdirSync(join(ENGINE, 'vectors')).sort();
const proofsOfFile = (name: string) => proofsIn(readFileSync(join(ENGINE, 'vectors', name), 'utf8'));

/** What stands in the engine, and the slip in its place: comparisons turned, guards left out, ends exchanged, units mistaken. */
const SLIPS: readonly (readonly [from: string, to: string])[] = [
  ['(ms + 500) / 1000', 'ms / 1000'],
  ['(int64_t)ranS * 1000 - line.tubeMs', '(int64_t)ranS * 1000'],
  ['(int64_t)ranS * line.flowMlPerMin + 59', '(int64_t)ranS * line.flowMlPerMin'],
  ['nowS >= beforeS && (int64_t)nowS', '(int64_t)nowS'],
  ['line.flowMlPerMin < 1 ||', ''],
  ['g.dailyMaxMl < 0 ||', ''],
  ['line.lastStopS = kept.pulses > 0 ? nowS : NONE', 'line.lastStopS = NONE'],
  ['(at < fresh ? 0 : ration.ml[at - fresh])', '(at <= fresh ? 0 : ration.ml[at - fresh])'],
  [
    'if (raw <= one.table[0].raw) return one.table[0].tenths',
    'if (raw <= one.table[0].raw) return one.table[one.points - 1].tenths',
  ],
  ['raw >= one.soilLowRaw && raw <= one.soilHighRaw', 'true'],
  ['leapt = state.tenths != tenths', 'leapt = false'],
  ['> one.leapTenths', '>= one.leapTenths'],
  [
    'return state.raw >= one.lowRaw && state.raw <= one.highRaw ? OUT_OF_SOIL : IMPLAUSIBLE',
    'return IMPLAUSIBLE',
  ],
  [
    '(int64_t)nowS - state.atS <= one.staleAfterS && state.atS <= nowS)) return STALE',
    'state.atS <= nowS)) return STALE',
  ],
  ['one.fallsWithWater ? state.raw <= one.minimumRaw', 'one.fallsWithWater ? state.raw >= one.minimumRaw'],
  ['at >= from || at < to', 'at >= from && at < to'],
  ['if (about.rain != 0) return RAIN;', ''],
  ['if (about.skip != 0) return SKIP_SWITCH;', ''],
  ['about.light >= c.darkBelow', 'about.light > c.darkBelow'],
  ['run.fromTenths < guards.provesBelowTenths', 'run.fromTenths <= guards.provesBelowTenths'],
  ['if (reason == ABOVE_STOP || reason == WET_VETO)', 'if (reason == ABOVE_STOP)'],
  ['line.watchTenths = NONE;\n  if (wish.reason', 'if (wish.reason'],
  [
    '> turn.config->guards.dailyMaxMl) return DAILY_MAX',
    '> turn.config->guards.dailyMaxMl + 50) return DAILY_MAX',
  ],
  [
    'return running >= turn.all->atOnce ? OTHER_LINE_RUNS : FREE',
    'return running > turn.all->atOnce ? OTHER_LINE_RUNS : FREE',
  ],
  ['>= turn.config->guards.riseTenths', '> turn.config->guards.riseTenths'],
  ['if (!turn.wasLocked) return;', ''],
  ['if (turn.tank != FREE) return turn.tank;\n  if (run.reason', 'if (run.reason'],
  ['ranS >= run.mostS || ranS >= config.guards.maxRunS', 'ranS >= run.mostS + 1'],
  [
    '< config.guards.minIntervalS) return restFor(MIN_INTERVAL)',
    '< config.guards.minIntervalS - 1) return restFor(MIN_INTERVAL)',
  ],
  ['if (line.watchTenths != NONE) return restFor(WAITING_FOR_RISE);', ''],
  ['served != NONE && turn.nowS - served < SERVED_S', 'served != NONE && turn.nowS - served < 60'],
  ['kept.hoursMl[0] += mayStill;', 'kept.hoursMl[0] += 0;'],
];

const FLAGS = ['-std=gnu++11', '-O1', '-w'];

test.runIf(process.env.TROWEL_LONG)(
  `${SLIPS.length} slips in the engine in C++ are all noticed`,
  { timeout: 1_800_000 },
  () => {
    const source = readFileSync(join(ENGINE, 'cpp/engine.h'), 'utf8');
    const proof = readFileSync(join(ENGINE, 'cpp/proof.cpp'), 'utf8');
    const files = [BORDERS, ...VECTOR_FILES.map(proofsOfFile)].map((traces) => {
      return { traces, told: `${traces.flatMap((one) => one.proof.told).join('\n')}\n` };
    });
    const unnoticed = SLIPS.filter(([from, to]) => {
      expect(source.split(from)).toHaveLength(2);
      const folder = mkdtempSync(join(tmpdir(), 'trowel-'));
      writeFileSync(
        join(folder, 'engine.h'),
        source.replace(from, () => to),
      );
      writeFileSync(join(folder, 'proof.cpp'), proof);
      const program = join(folder, 'proof');
      const made = spawnSync('g++', [...FLAGS, '-o', program, join(folder, 'proof.cpp')], {
        encoding: 'utf8',
      });
      expect(made.stderr, from).toBe('');
      return !files.some(({ traces, told }) => {
        const ran = spawnSync(program, { input: told, encoding: 'utf8', maxBuffer: 2 ** 30 });
        return ran.status !== 0 || firstDifference(traces, ran.stdout.trimEnd().split('\n')) !== null;
      });
    });
    expect(unnoticed).toEqual([]);
  },
);
