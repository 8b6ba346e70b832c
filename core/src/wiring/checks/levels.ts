/** Checks of voltage levels: nothing sees too much, and every high counts as high. */
import { type Circuit, type Spot, fact, isType } from '../circuit.ts';
import { type Check, type Remedy } from '../finding.ts';
import { allSpots, boardOf, feederOf, groundSpot, inV, logicSupply, nameOf, supplySpot } from '../look.ts';
import { driverOf } from '../pinUse.ts';

/** A level shifter at a pin, for a partner that lives on another supply. */
export function shiftRemedy(circuit: Circuit, pin: Spot, partner: Spot): Remedy[] {
  const board = boardOf(circuit, pin.placed) ?? pin.placed;
  const low = logicSupply(board);
  const supply = supplySpot(partner.placed);
  const high = supply && feederOf(circuit.netOf(supply.end));
  const ground = groundSpot(board);
  if (!low || !high || !ground || (low.placed === high.placed && low.terminal.id === high.terminal.id))
    return [];
  return [
    {
      kind: 'shift',
      label: 'Put a level shifter between',
      at: pin.end,
      low: low.end,
      high: high.end,
      ground: ground.end,
    },
  ];
}

export const LEVEL_CHECKS: readonly Check[] = [
  {
    id: 'logic-too-low',
    title: 'Every input sees its high as high',
    why: 'A 3.3 V pin does not always count as high for a 5 V part: it works on the bench and fails in the cold.',
    run: (circuit, report) => {
      for (const spot of allSpots(circuit)) {
        if (!isType(spot, 'digital in') && !isType(spot, 'uart in')) continue;
        const driver = driverOf(circuit, spot);
        if (!driver) continue;
        const highV = isType(driver, 'pin')
          ? fact(driver.placed, 'logicV')
          : (circuit.netOf(driver.end).level?.volts ?? null);
        // What nothing drives at all is found by its voltage.
        if (!isType(driver, 'pin') && circuit.netOf(driver.end).level === null) continue;
        const { highFromV } = spot.terminal;
        if (highV === null || highFromV === null)
          report.unknown(`From which voltage ${nameOf(spot)} counts as high is not known.`, [spot, driver]);
        else if (highV < highFromV)
          report.find(
            'caution',
            `${nameOf(driver)} gives ${inV(highV)}; ${nameOf(spot)} wants at least ${inV(highFromV)} for high.`,
            [spot, driver],
            { remedies: shiftRemedy(circuit, driver, spot) },
          );
        else report.fine();
      }
    },
  },
];
