// Mutants written into copies of the sources, one at a time. Switches inside the code, as the mutation tester puts them, make loops of hundreds of millions of steps fifty times slower; here a mutant runs as fast as the code itself.
import { cpSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { spawn } from 'node:child_process';
import { join, relative } from 'node:path';
import { Instrumenter } from '@stryker-mutator/instrumenter';
import { bin, root } from './ready.mjs';

const AT_ONCE = 2;
/** A mutant that takes longer hangs, which somebody would notice. */
const HANGS_MS = 90_000;

const quiet = () => undefined;
const logger = { debug: quiet, info: quiet, warn: quiet, isDebugEnabled: () => false };

/** Every mutant of the lines drawn: `lines` holds for each file (from the root) its line numbers from 0. */
export async function mutantsOf(lines) {
  const files = [...lines].map(([name, numbers]) => ({
    name,
    content: readFileSync(join(root, name), 'utf8'),
    mutate: numbers.map((line) => ({
      start: { line, column: 0 },
      end: { line, column: 10_000 },
    })),
  }));
  const { mutants } = await new Instrumenter(logger).instrument(files, {
    plugins: null,
    excludedMutations: [],
    ignorers: [],
  });
  return mutants.filter((one) => !one.status);
}

/** The text with the mutant in its place. */
export function withMutant(text, { location: { start, end }, replacement }) {
  const lines = text.split('\n');
  const offset = ({ line, column }) =>
    lines.slice(0, line).reduce((sum, one) => sum + one.length + 1, 0) + column;
  return text.slice(0, offset(start)) + replacement + text.slice(offset(end));
}

const runTests = (folder, tests) =>
  new Promise((done) => {
    const child = spawn(
      process.execPath,
      [bin('vitest'), 'run', '--root', folder, '--bail', '1', '--config', join(folder, 'vitest.config.mjs')],
      { stdio: 'ignore', detached: true },
    );
    const timer = setTimeout(() => process.kill(-child.pid, 'SIGKILL'), HANGS_MS);
    child.on('close', (code) => {
      clearTimeout(timer);
      done(code === 0 ? 'survived' : code === null ? 'hung' : 'noticed');
    });
  });

/** Tries each mutant against the tests; resolves to how many there are and which nobody notices. Throws where the tests fail without any mutant. */
export async function tryMutants(mutants, tests) {
  const waiting = mutants.map((mutant, at) => ({ mutant, at }));
  const unnoticed = [];
  let tried = 0;
  const desk = async (number) => {
    const folder = join(root, `reports/written-${number}`);
    rmSync(folder, { recursive: true, force: true });
    cpSync(join(root, 'core/src'), join(folder, 'core/src'), { recursive: true });
    writeFileSync(
      join(folder, 'vitest.config.mjs'),
      `export default { test: { include: ${JSON.stringify(tests)}, environment: 'node', testTimeout: 60_000 } };\n`,
    );
    if ((await runTests(folder)) !== 'survived') throw new Error('The tests fail without any mutant.');
    for (let next = waiting.shift(); next; next = waiting.shift()) {
      const { mutant } = next;
      const file = join(folder, mutant.fileName);
      const text = readFileSync(file, 'utf8');
      writeFileSync(file, withMutant(text, mutant));
      const became = await runTests(folder);
      writeFileSync(file, text);
      tried += 1;
      if (became === 'survived') unnoticed.push(mutant);
      const { line } = mutant.location.start;
      console.log(
        `${tried}/${mutants.length} ${became} ${relative('core/src', mutant.fileName)}:${line + 1} ${mutant.mutatorName}: ${mutant.replacement.replaceAll(/\s+/g, ' ').slice(0, 90)}`,
      );
    }
    rmSync(folder, { recursive: true, force: true });
  };
  await Promise.all(Array.from({ length: AT_ONCE }, (_, number) => desk(number)));
  return unnoticed;
}
