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
import { CAPACITY_CHECKS } from './capacity.ts';
import { CARE_CHECKS } from './care.ts';
import { CONTROL_CHECKS } from './controls.ts';
import { FEED_CHECKS } from './feeds.ts';
import { I2C_CHECKS } from './i2c.ts';
import { LEVEL_CHECKS } from './levels.ts';
import { LOAD_CHECKS } from './loads.ts';
import { LOOP_CHECKS } from './loop.ts';
import { PIN_CHECKS } from './pins.ts';
import { RS485_CHECKS } from './rs485.ts';

export const CHECKS: readonly Check[] = [
  ...FEED_CHECKS,
  ...CAPACITY_CHECKS,
  ...LEVEL_CHECKS,
  ...PIN_CHECKS,
  ...ANALOG_CHECKS,
  ...CONTROL_CHECKS,
  ...LOAD_CHECKS,
  ...I2C_CHECKS,
  ...RS485_CHECKS,
  ...LOOP_CHECKS,
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
