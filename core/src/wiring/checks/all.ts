/** Every check of a wiring, in the order people look: what hurts or burns first, what reads wrong later. */
import { FACTS } from '../../catalogue/facts.ts';
import { solvedOf } from '../solve/solved.ts';
import { hasRole, type Circuit, type Placed } from '../circuit.ts';
import {
  runCheck,
  SEVERITIES,
  type Check,
  type CheckResult,
  type Finding,
  type Setting,
} from '../finding.ts';
import { ANALOG_CHECKS } from './analog.ts';
import { BARE_CHECKS } from './bare.ts';
import { CABLE_CHECKS } from './cables.ts';
import { CHARGING_CHECKS } from './charging.ts';
import { CARE_CHECKS } from './care.ts';
import { CONTROL_CHECKS } from './controls.ts';
import { FEED_CHECKS } from './feeds.ts';
import { FUSE_CHECKS } from './fuses.ts';
import { FEEDING_CHECKS } from './solved/feeding.ts';
import { CURRENT_CHECKS } from './solved/currents.ts';
import { LIMIT_CHECKS } from './solved/limits.ts';
import { RUNNING_CHECKS } from './solved/loads.ts';
import { SETTLED_CHECKS } from './solved/settled.ts';
import { SIGNAL_CHECKS } from './solved/signals.ts';
import { I2C_CHECKS } from './i2c.ts';
import { LEVEL_CHECKS } from './levels.ts';
import { LOAD_CHECKS } from './loads.ts';
import { LOOP_CHECKS } from './loop.ts';
import { PIN_CHECKS } from './pins.ts';
import { RS485_CHECKS } from './rs485.ts';

/** What the solutions say: volts, amps, on and off, in every situation. */
const SOLVED_CHECKS: readonly Check[] = [
  ...SETTLED_CHECKS,
  ...FEEDING_CHECKS,
  ...RUNNING_CHECKS,
  ...CURRENT_CHECKS,
  ...LIMIT_CHECKS,
  ...SIGNAL_CHECKS,
  ...FUSE_CHECKS,
  ...CABLE_CHECKS,
  ...LOOP_CHECKS,
];

/** What a direct current does not tell of: kicks of coils, echoes, addresses, what a pin can do, care. */
const RULE_CHECKS: readonly Check[] = [
  ...FEED_CHECKS,
  ...CHARGING_CHECKS,
  ...LEVEL_CHECKS,
  ...PIN_CHECKS,
  ...ANALOG_CHECKS,
  ...BARE_CHECKS,
  ...CONTROL_CHECKS,
  ...LOAD_CHECKS,
  ...I2C_CHECKS,
  ...RS485_CHECKS,
  ...CARE_CHECKS,
];

export const CHECKS: readonly Check[] = [...SOLVED_CHECKS, ...RULE_CHECKS];

const SOLVED_IDS = new Set(SOLVED_CHECKS.map(({ id }) => id));

/** A result, and whether its check is an assertion over the solved circuit; else it is a rule. */
export type JudgedCheck = CheckResult & { readonly isSolved: boolean };

export type Verdict = {
  readonly results: readonly JudgedCheck[];
  /** All findings, the worst first. */
  readonly findings: readonly Finding[];
  readonly proved: Proved;
};

/** What the checks come to: what was judged and is in order, and what could not be judged for want of a figure. */
export type Proved = {
  readonly passed: number;
  readonly unknown: number;
  readonly found: number;
  /** The first figure that is missing: "the current while working of Roof pump"; null where something else is. */
  readonly missing: string | null;
};

function provedOf(circuit: Circuit, results: readonly CheckResult[]): Proved {
  const count = (of: (result: CheckResult) => boolean) => results.filter(of).length;
  const isFound = ({ findings }: CheckResult) =>
    findings.some(({ severity }) => !['note', 'unknown'].includes(severity));
  const isUnknown = ({ verdict, findings }: CheckResult) =>
    verdict === 'unknown' || findings.some(({ severity }) => severity === 'unknown');
  const [first] = solvedOf(circuit).mesh.missing;
  return {
    found: count(isFound),
    unknown: count((one) => !isFound(one) && isUnknown(one)),
    passed: count((one) => !isFound(one) && !isUnknown(one) && one.verdict !== 'not needed'),
    missing: first ? `the ${FACTS[first.key].name} of ${first.placed.part.label}` : null,
  };
}

export function checkWiring(circuit: Circuit, setting: Setting): Verdict {
  const { settled } = solvedOf(circuit);
  const results = CHECKS.map((check): JudgedCheck => {
    const result = runCheck(check, circuit, setting);
    const isSolved = SOLVED_IDS.has(check.id);
    // Where the circuit finds no rest, nothing was proved by its solutions.
    return !settled && isSolved && result.verdict === 'passed'
      ? { ...result, isSolved, verdict: 'unknown' }
      : { ...result, isSolved };
  });
  const rank = (finding: Finding) => SEVERITIES.indexOf(finding.severity);
  const findings = results.flatMap((result) => result.findings);
  return {
    results,
    proved: provedOf(circuit, results),
    findings: withoutConsequences(circuit, findings).sort((one, other) => rank(one) - rank(other)),
  };
}

/**
 * What follows from a fault that is told itself is left out: a probe without ground has no signal either. Boards and supplies have to do with everything, so
 * that only their being dead explains what hangs on them.
 */
function withoutConsequences(circuit: Circuit, findings: readonly Finding[]): Finding[] {
  const partsOf = ({ ends }: Finding) => ends.flatMap(({ part }) => circuit.parts.get(part) ?? []);
  const isCentral = (placed: Placed) => hasRole(placed, 'board', 'battery', 'supply', 'regulator');
  const own = (finding: Finding) => partsOf(finding).filter((placed) => !isCentral(placed));
  const isSerious = ({ severity }: Finding) => ['danger', 'fault', 'caution'].includes(severity);
  const causes = findings.filter((one) => !one.isConsequence && isSerious(one));
  const explained = new Set(causes.flatMap(own));
  const dead = findings.filter((one) => one.check === 'unpowered' && partsOf(one).some(isCentral));
  const isDead = (finding: Finding) => dead.includes(finding);
  return findings.filter(
    (one) =>
      !one.isConsequence ||
      (dead.length > 0
        ? isDead(one) && !dead.some((cause) => !cause.isConsequence)
        : !own(one).some((placed) => explained.has(placed))),
  );
}
