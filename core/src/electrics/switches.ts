/** Resistors at a transistor's base and at a MOSFET's gate. */
import { fail, ok, type Result } from '../quantity/result.ts';
import { input, step, worked, type Worked } from '../quantity/worked.ts';
import { nextDown, nextUp, type ESeries } from './eSeries.ts';

/** Base–emitter voltage of a silicon transistor that is switched on, V. */
const BASE_V = 0.7;

export type BaseAsked = {
  readonly pinV: number;
  /** Collector current, mA. */
  readonly loadMa: number;
  /** Current gain at that load, from the data sheet's low end. */
  readonly hfe: number;
  /** How much more base current than just needed; 3 to 10 keeps it saturated. */
  readonly overdrive: number;
  /** What the pin may give, mA. */
  readonly pinMa: number;
  readonly series: ESeries;
};
export type BaseIssue =
  | { readonly kind: 'base-no-voltage'; readonly pinV: number }
  | { readonly kind: 'base-too-much'; readonly baseMa: number; readonly pinMa: number };

/**
 * Base resistor of a transistor switch: (Vpin − 0.7) × hFE / (I × overdrive), rounded down so that it still saturates.
 * Source: Horowitz & Hill, The Art of Electronics, "transistor switch".
 */
export function baseResistor(
  asked: BaseAsked,
): Result<{ readonly ohm: number; readonly baseMa: number; readonly worked: Worked }, BaseIssue> {
  if (asked.pinV <= BASE_V) return fail({ kind: 'base-no-voltage', pinV: asked.pinV });
  const pin = input('voltage of the pin', asked.pinV, 'V', 2);
  const exact = step(
    {
      name: 'exact resistor',
      unit: 'Ω',
      decimals: 0,
      formula: '({pin} − 0.7) × {hfe} ÷ ({load} × {over}) × 1000',
      inputs: {
        pin,
        hfe: input('current gain', asked.hfe, ''),
        load: input('load', asked.loadMa, 'mA'),
        over: input('overdrive', asked.overdrive, '×', 1),
      },
    },
    ({ pin, hfe, load, over }) => (((pin - BASE_V) * hfe) / (load * over)) * 1000,
  );
  const ohm = nextDown(asked.series, exact.value);
  const base = step(
    {
      name: 'current out of the pin',
      unit: 'mA',
      decimals: 2,
      formula: '({pin} − 0.7) ÷ {ohm} × 1000',
      inputs: { pin, ohm: input(`next ${asked.series} value below`, ohm, 'Ω') },
    },
    ({ pin, ohm }) => ((pin - BASE_V) / ohm) * 1000,
  );
  if (base.value > asked.pinMa)
    return fail({ kind: 'base-too-much', baseMa: base.value, pinMa: asked.pinMa });
  const chosen = step(
    {
      name: 'resistor to take',
      unit: 'Ω',
      formula: `next ${asked.series} value not above {exact}`,
      inputs: { exact: input('exact resistor', exact.value, 'Ω') },
    },
    () => ohm,
  );
  return ok({
    ohm,
    baseMa: base.value,
    worked: worked('Base resistor', [exact, base, chosen], {
      source: 'Transistor switch, Horowitz & Hill, The Art of Electronics.',
      note: 'Rounded down, so that the transistor still saturates with a weak specimen.',
      wouldChange: 'Load, gain at that load, or the pin’s voltage.',
    }),
  });
}

export type GateAsked = {
  readonly pinV: number;
  readonly pinMa: number;
  /** Gate voltage at which the data sheet states the on-resistance, V. */
  readonly gateFullOnV: number;
  readonly onOhm: number;
  readonly loadMa: number;
  readonly pullDownOhm: number;
  readonly series: ESeries;
};
export type GateIssue = {
  readonly kind: 'gate-not-full-on';
  readonly gateV: number;
  readonly gateFullOnV: number;
};
export type GateFound = {
  readonly ohm: number;
  readonly gateV: number;
  readonly heatMw: number;
  readonly worked: Worked;
};

/**
 * Gate resistor of a MOSFET switch: large enough that charging the gate never takes more than the pin's limit; the pull-down keeps it off
 * while the board boots, and both form a divider that must still leave the full-on voltage.
 */
export function gateResistor(asked: GateAsked): Result<GateFound, GateIssue> {
  const pin = input('voltage of the pin', asked.pinV, 'V', 2);
  const least = step(
    {
      name: 'least resistor',
      unit: 'Ω',
      formula: '{pin} ÷ {limit} × 1000',
      inputs: { pin, limit: input('pin’s limit', asked.pinMa, 'mA') },
    },
    ({ pin, limit }) => (pin / limit) * 1000,
  );
  const ohm = nextUp(asked.series, least.value);
  const gate = step(
    {
      name: 'voltage at the gate',
      unit: 'V',
      decimals: 2,
      formula: '{pin} × {down} ÷ ({down} + {ohm})',
      inputs: {
        pin,
        down: input('pull-down', asked.pullDownOhm, 'Ω'),
        ohm: input(`next ${asked.series} value above`, ohm, 'Ω'),
      },
    },
    ({ pin, down, ohm }) => (pin * down) / (down + ohm),
  );
  if (gate.value < asked.gateFullOnV)
    return fail({ kind: 'gate-not-full-on', gateV: gate.value, gateFullOnV: asked.gateFullOnV });
  const heat = step(
    {
      name: 'heat when on',
      unit: 'mW',
      formula: '({load} ÷ 1000)² × {on} × 1000',
      inputs: { load: input('load', asked.loadMa, 'mA'), on: input('on-resistance', asked.onOhm, 'Ω', 3) },
    },
    ({ load, on }) => (load / 1000) ** 2 * on * 1000,
  );
  const chosen = step(
    {
      name: 'resistor to take',
      unit: 'Ω',
      formula: `next ${asked.series} value not below {least}`,
      inputs: { least: input('least resistor', least.value, 'Ω') },
    },
    () => ohm,
  );
  return ok({
    ohm,
    gateV: gate.value,
    heatMw: heat.value,
    worked: worked('Gate resistor', [least, gate, heat, chosen], {
      source: 'Ohm’s law for the first instant, when an empty gate is a short; I² × R for the heat.',
      note: 'The pull-down goes from gate to ground, so that the pump stays off while the board boots.',
      wouldChange: 'The pin’s limit, the pull-down, another MOSFET.',
    }),
  });
}
