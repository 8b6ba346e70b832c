/** The working of figures that a solution gives: voltages by their two ends, currents by the law of what they flow through. */
import { input, step, worked, type Worked, type WorkedStep } from '../../quantity/worked.ts';
import { groundOf, type Solved } from './solved.ts';
import type { Device } from './law.ts';
import type { CircuitMesh } from './mesh.ts';
import type { Spot } from '../circuit.ts';
import type { Solution } from './solve.ts';

/** Where a figure of a solution comes from, for the slip. */
const SOURCE =
  'Nodal equations of the whole circuit, solved until every part agrees with its state (Kirchhoff’s laws).';
const about = (at: Solution, wouldChange: string) => ({
  source: SOURCE,
  note: `Solved ${at.situation.when}.`,
  wouldChange,
});
const VOLTS_CHANGE = 'The supply, a cable, another part on the same branch.';
const AMPS_CHANGE = 'The supply, a resistor on the way, the part’s own figures.';

const spotName = ({ placed, terminal }: Spot): string => `${placed.part.label} ${terminal.name}`;

/** Voltage of a terminal against the ground of its own part, V; nothing where that has none or the two are not joined. */
export function workVoltsAt({ mesh }: Solved, at: Solution, spot: Spot): { worked?: Worked } {
  const ground = groundOf(spot.placed);
  if (!ground) return {};
  const [node, back] = [mesh.nodeOf(spot.end), mesh.nodeOf(ground.end)];
  if (!Number.isFinite(at.across(node, back))) return {};
  return {
    worked: worked(
      `Voltage at ${spotName(spot)}`,
      [difference(mesh, at, node, back, [spotName(spot), spotName(ground)])],
      about(at, VOLTS_CHANGE),
    ),
  };
}

/** Voltage across a part, from one of its nodes to another, V. */
export const workAcross = (
  mesh: CircuitMesh,
  at: Solution,
  [one, other]: readonly [number, number],
  title: string,
): Worked =>
  worked(
    title,
    [difference(mesh, at, one, other, ['its one end', 'its other end'])],
    about(at, VOLTS_CHANGE),
  );

/** Current through devices together, mA; each by its own law. */
export function workAmps(
  at: Solution,
  devices: readonly { readonly device: Device; readonly name: string }[],
  title: string,
): { worked?: Worked } {
  const steps = devices.map(({ device, name }) => currentStep(device, at, name));
  const [first, ...rest] = steps;
  if (!first) return {};
  if (rest.length === 0) return { worked: worked(title, [first], about(at, AMPS_CHANGE)) };
  const sum = step(
    {
      name: 'together',
      unit: 'mA',
      decimals: 1,
      formula: steps.map((_, index) => `{part${index}}`).join(' + '),
      inputs: Object.fromEntries(
        steps.map(({ name, value }, index) => [`part${index}`, input(name, value, 'mA', 1)]),
      ),
    },
    (given) => Object.values<number>(given).reduce((all, one) => all + one, 0),
  );
  return { worked: worked(title, [first, ...rest, sum], about(at, AMPS_CHANGE)) };
}

/** Heat in a device, mW: its voltage times its current. */
export function workHeat(at: Solution, device: Device, title: string): Worked {
  const current = currentStep(device, at, 'through it');
  const heat = step(
    {
      name: 'turned into heat',
      unit: 'mW',
      formula: '{volts} × {ma}',
      inputs: {
        volts: input('voltage across it', Math.abs(at.across(device.a, device.b)), 'V', 3),
        ma: input('current through it', current.value, 'mA', 1),
      },
    },
    ({ volts, ma }) => volts * ma,
  );
  return worked(title, [current, heat], about(at, AMPS_CHANGE));
}

function difference(
  mesh: CircuitMesh,
  at: Solution,
  one: number,
  other: number,
  names: readonly [string, string],
): WorkedStep {
  const zero = mesh.zeroOf.find((node) => mesh.islandOf[node] === mesh.islandOf[one]) ?? other;
  return step(
    {
      name: 'between the two',
      unit: 'V',
      decimals: 2,
      formula: '{plus} − {minus}',
      inputs: {
        plus: input(`${names[0]}, against the minus of the supply`, at.across(one, zero), 'V', 3),
        minus: input(`${names[1]}, against the minus of the supply`, at.across(other, zero), 'V', 3),
      },
    },
    ({ plus, minus }) => plus - minus,
  );
}

/** The size of a current by the part's own law, where that is a short sum; else as the equations gave it. */
export function currentStep(device: Device, at: Solution, name: string): WorkedStep {
  const of = { name, unit: 'mA', decimals: 1 };
  const volts = input('voltage across it', Math.abs(at.across(device.a, device.b)), 'V', 3);
  const { law } = device;
  if (law.kind === 'resistor')
    return step(
      {
        ...of,
        formula: '{volts} ÷ {ohm} × 1000',
        inputs: { volts, ohm: input('its resistance', law.ohm(at.situation), 'Ω', 2) },
      },
      (given) => (given.volts / given.ohm) * 1000,
    );
  if (law.kind === 'diode' && at.modeOf(device) === 'on')
    return step(
      {
        ...of,
        formula: '({volts} − {forward}) ÷ {ohm} × 1000',
        inputs: {
          volts,
          forward: input('its forward voltage', law.forwardV, 'V', 2),
          ohm: input('its own resistance', law.ohm, 'Ω', 2),
        },
      },
      (given) => ((given.volts - given.forward) / given.ohm) * 1000,
    );
  return step(
    {
      ...of,
      formula: '{amps}',
      inputs: { amps: input('from the equations', Math.abs(at.ampsOf(device)) * 1000, 'mA', 2) },
    },
    ({ amps }) => amps,
  );
}
