/** The engine in MicroPython, run by its WebAssembly build beside the one in TypeScript: it must answer the same at every step. */
import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { loadMicroPython } from '@micropython/micropython-webassembly-pyscript/micropython.mjs';
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

const IS_LONG = Boolean(process.env.TROWEL_LONG);
/** It is a hundred times slower than the compiled one. */
const FILES = IS_LONG ? VECTOR_FILES : VECTOR_FILES.slice(-4);
const DAYS = IS_LONG ? 300 : 1;
const STEPS = IS_LONG ? 10_000 : 4000;

let rows: (text: string) => string;

beforeAll(async () => {
  const python = await loadMicroPython({ heapsize: 16 * 1024 * 1024 });
  for (const name of ['engine.py', 'contacts.py', 'signals.py', 'proof.py'])
    python.FS.writeFile(`/${name}`, readFileSync(join(ENGINE, 'python', name), 'utf8'));
  python.runPython(`
import sys
sys.path.append('/')
from proof import Proof
proof = Proof()
def rows(text):
    said = []
    for row in text.split('\\n'):
        answer = proof.row(row)
        if answer is not None:
            said.append(answer)
    return '\\n'.join(said)
`);
  rows = python.globals.get('rows') as typeof rows;
});

function differs(traces: readonly NamedProof[]): string | null {
  const said = traces.flatMap(({ proof }) => {
    const all: string[] = [];
    for (let from = 0; from < proof.told.length; from += 200) {
      const answers = rows(proof.told.slice(from, from + 200).join('\n'));
      if (answers !== '') all.push(...answers.split('\n'));
    }
    return all;
  });
  return firstDifference(traces, said);
}

describe('the engine in MicroPython', () => {
  test.each(FILES)('answers every call of %s as is written there', { timeout: 600_000 }, (name) => {
    expect(differs(proofsOfFile(name))).toBeNull();
  });

  test('and of days on which something lies exactly on a border', () => {
    expect(differs(BORDERS)).toBeNull();
  });

  test(`and of ${DAYS} further days of ${STEPS} steps`, { timeout: 7_200_000 }, () => {
    for (let seed = 1; seed <= DAYS; seed += 1) expect(differs([proofOfDay(seed, STEPS)])).toBeNull();
  });
});

describe('contacts in MicroPython', () => {
  test.each(IS_LONG ? CONTACT_FILES : CONTACT_FILES.slice(-2))(
    'answer every call of %s as is written there',
    { timeout: 600_000 },
    (name) => {
      expect(differs(contactProofsIn(readFileSync(join(ENGINE, 'contacts', name), 'utf8')))).toBeNull();
    },
  );

  const SEEDS = IS_LONG ? 300 : 6;
  test(`and of ${SEEDS} further days`, { timeout: 3_600_000 }, () => {
    for (let seed = 1; seed <= SEEDS; seed += 1) expect(differs([contactProofOfDay(seed, 8000)])).toBeNull();
  });
});

test('lamps in MicroPython show what those of the page do, in 150 made-up plots', () => {
  expect(differs(signalProofs(150))).toBeNull();
});
