/** Every check of a wiring, in the order people look: what hurts or burns first, what reads wrong later. */
import type { Circuit } from '../circuit.ts';
import {
  runCheck,
  SEVERITIES,
  type Check,
  type CheckResult,
  type Finding,
  type Setting,
} from '../finding.ts';
import { ANALOG_CHECKS } from './analog.ts';
import { BUS_CHECKS } from './buses.ts';
import { CARE_CHECKS } from './care.ts';
import { PIN_CHECKS } from './pins.ts';
import { SUPPLY_CHECKS } from './supply.ts';
import { SWITCHING_CHECKS } from './switching.ts';

export const CHECKS: readonly Check[] = [
  ...SUPPLY_CHECKS,
  ...PIN_CHECKS,
  ...ANALOG_CHECKS,
  ...SWITCHING_CHECKS,
  ...BUS_CHECKS,
  ...CARE_CHECKS,
];

export type Verdict = {
  readonly results: readonly CheckResult[];
  /** All findings, the worst first. */
  readonly findings: readonly Finding[];
};

export function checkWiring(circuit: Circuit, setting: Setting): Verdict {
  const results = CHECKS.map((check) => runCheck(check, circuit, setting));
  const rank = (finding: Finding) => SEVERITIES.indexOf(finding.severity);
  return {
    results,
    findings: results.flatMap((result) => result.findings).sort((one, other) => rank(one) - rank(other)),
  };
}
