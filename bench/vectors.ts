/**
 * Makes engine/vectors and engine/contacts: traces of made-up days, chosen so that every kind of program and every reason stands in at least fifty of them.
 * Run by `npm run vectors`; the files are checked by the tests in `core/src/control/vectors`.
 */
import { REASONS } from '@plain-trowel/core/control/contract/reasons';
import {
  contactReasonsIn,
  contactScriptOf,
  REASONS_OF_CONTACTS,
  runContactScript,
  type ContactScript,
} from '@plain-trowel/core/control/vectors/contactScript';
import { CONTACT_VECTORS_FORMAT, contactTraceOf } from '@plain-trowel/core/control/vectors/contactVectors';
import { NOT_THE_ENGINES, reasonsIn, runScript } from '@plain-trowel/core/control/vectors/runScript';
import { scriptOf, type Script } from '@plain-trowel/core/control/vectors/script';
import { traceOf, VECTORS_FORMAT, VECTORS_VERSION } from '@plain-trowel/core/control/vectors/vectorFile';
import { chooseTraces, writeTraces } from './chooseTraces.ts';

const EACH = 50;
const LEAST_TRACES = 400;
const SEEDS = Number(process.env.SEEDS ?? 10_000);
const LONG_DAY_S = 200_000;

const told = (what: string, days: readonly { readonly calls: readonly unknown[] }[]) =>
  console.log(
    `${what}: ${days.length} traces, ${days.reduce((sum, one) => sum + one.calls.length, 0)} calls`,
  );

const contactScripts = new Map<string, ContactScript>();
const contactDays = chooseTraces(
  REASONS_OF_CONTACTS,
  EACH,
  EACH,
  SEEDS,
  (seed) => {
    const script = contactScriptOf(seed);
    const name = `day ${seed}`;
    contactScripts.set(name, script);
    return [{ name, calls: runContactScript(script) }];
  },
  contactReasonsIn,
);
writeTraces(
  'engine/contacts',
  CONTACT_VECTORS_FORMAT,
  VECTORS_VERSION,
  contactDays.flatMap(({ name, calls }) => {
    const script = contactScripts.get(name);
    return script ? [contactTraceOf(name, script, calls)] : [];
  }),
);
told('contacts', contactDays);

const scripts = new Map<string, Script>();
const days = chooseTraces(
  REASONS.filter((reason) => !NOT_THE_ENGINES.includes(reason)),
  EACH,
  LEAST_TRACES,
  SEEDS,
  (seed) =>
    [
      { name: `day ${seed}`, script: scriptOf(seed) },
      { name: `days ${seed}`, script: scriptOf(seed, LONG_DAY_S) },
    ].map(({ name, script }) => {
      scripts.set(name, script);
      return { name, calls: runScript(script, () => false) };
    }),
  reasonsIn,
);
writeTraces(
  'engine/vectors',
  VECTORS_FORMAT,
  VECTORS_VERSION,
  days.flatMap(({ name, calls }) => {
    const script = scripts.get(name);
    return script ? [traceOf(name, script.config, calls)] : [];
  }),
);
told('water lines', days);
