import type { DividerIssue } from '@plain-trowel/core/electrics/divider';
import type { FuseIssue } from '@plain-trowel/core/electrics/fuse';
import type { PullUpIssue } from '@plain-trowel/core/electrics/i2cPullUp';
import type { LedIssue } from '@plain-trowel/core/electrics/led';
import type { ShuntIssue } from '@plain-trowel/core/electrics/shunt';
import type { BaseIssue, GateIssue } from '@plain-trowel/core/electrics/switches';
import { formatNumber } from '@plain-trowel/core/quantity/format';

export type SumIssue = LedIssue | DividerIssue | BaseIssue | GateIssue | PullUpIssue | ShuntIssue | FuseIssue;

const volts = (value: number) => `${formatNumber(value, 2)} V`;
const ohms = (value: number) => `${formatNumber(value)} Ω`;

/** Why a sum has no answer, and what would give it one. */
export function sumText(issue: SumIssue): string {
  switch (issue.kind) {
    case 'led-needs-more':
      return `The LED needs ${volts(issue.forwardV)} and gets ${volts(issue.pinV)}: it stays dark. Take a red one, or a higher supply with a transistor.`;
    case 'divider-not-needed':
      return `${volts(issue.inV)} is not above ${volts(issue.targetV)}: no divider is needed.`;
    case 'divider-no-pair':
      return `No pair has less than ${ohms(issue.sourceLimitOhm)} behind it and draws from more than ${ohms(issue.leastSumOhm)}. Allow one of the two to give way.`;
    case 'base-no-voltage':
      return `${volts(issue.pinV)} does not open a transistor; 0.7 V is the least.`;
    case 'base-too-much':
      return `The base would take ${formatNumber(issue.baseMa, 1)} mA, more than the pin’s ${formatNumber(issue.pinMa)} mA. Take a MOSFET.`;
    case 'gate-not-full-on':
      return `The gate gets ${volts(issue.gateV)} and wants ${volts(issue.gateFullOnV)} to be fully on. Take a logic-level MOSFET.`;
    case 'bus-too-heavy':
      return issue.busPf > issue.mostPf
        ? `${formatNumber(issue.busPf)} pF is more than an I2C bus may carry (${formatNumber(issue.mostPf)} pF). Shorten the cable.`
        : `No value of this series lies between ${ohms(issue.leastOhm)} and ${ohms(issue.mostOhm)}. Take a finer series, a slower clock or a shorter cable.`;
    case 'loop-voltage-short':
      return `With ${ohms(issue.ohm)} the loop needs ${volts(issue.neededV)} at 20 mA and has ${volts(issue.loopV)}. Raise the supply, or take a smaller shunt.`;
    case 'cable-too-thin':
      return `The load wants ${formatNumber(issue.neededA, 1)} A; ${formatNumber(issue.areaMm2, 2)} mm² bears ${formatNumber(issue.cableA, 1)} A. Take a thicker cable.`;
  }
}
