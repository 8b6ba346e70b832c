/** Checks of voltage levels: nothing sees too much, and every high counts as high. */
import { dividerRemedy } from '../dividerRemedy.ts';
import { type Circuit, type Spot, fact, hasRole, isType } from '../circuit.ts';
import { type Check, type Remedy } from '../finding.ts';
import {
  allSpots,
  boardOf,
  feederOf,
  groundSpot,
  inV,
  isWired,
  logicSupply,
  nameOf,
  supplySpot,
} from '../look.ts';
import { driverOf } from '../pinUse.ts';

/** Voltage a terminal bears; undefined for terminals that have no such limit. */
function bearsV(spot: Spot): number | null | undefined {
  const { terminal } = spot;
  return 'maxV' in terminal && terminal.type !== 'supply in' ? terminal.maxV : undefined;
}

/** A level shifter at a pin, for a partner that lives on another supply. */
function shiftRemedy(circuit: Circuit, pin: Spot, partner: Spot): Remedy[] {
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
    id: 'over-voltage',
    title: 'No pin sees more voltage than it bears',
    why: 'A pin above its limit fails at once or after weeks, and takes the board with it.',
    run: (circuit, report) => {
      for (const spot of allSpots(circuit)) {
        const most = bearsV(spot);
        const { level } = circuit.netOf(spot.end);
        if (most === undefined || !isWired(circuit, spot) || level?.from.placed === spot.placed || !level)
          continue;
        if (most === null) {
          report.unknown(`What ${nameOf(spot)} bears is not known. Look it up and enter it.`, [spot]);
        } else if (level.volts === null) {
          report.unknown(
            `${nameOf(spot)} bears ${inV(most)}, but the voltage of ${nameOf(level.from)} is not known. Measure it before you connect it.`,
            [spot, level.from],
          );
        } else if (level.volts > most + 0.05) {
          const analog =
            isType(level.from, 'analog out') ||
            isType(level.from, 'supply out') ||
            hasRole(level.from.placed, 'battery');
          report.find(
            'fault',
            `${nameOf(level.from)} can put ${inV(level.volts)} on ${nameOf(spot)}, which bears ${inV(most)}.`,
            [spot, level.from],
            {
              remedies: analog
                ? dividerRemedy(
                    spot,
                    level.volts,
                    isType(spot, 'pin') ? (spot.terminal.fullScaleV ?? most) : most,
                  )
                : [
                    ...shiftRemedy(circuit, spot, level.from),
                    ...(isType(level.from, 'digital out') || isType(level.from, 'uart out')
                      ? dividerRemedy(spot, level.volts, fact(spot.placed, 'logicV') ?? most)
                      : []),
                  ],
            },
          );
        } else report.fine();
      }
    },
  },
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
