/** A board's program, planned from the garden: whole, or a list of what is still missing. */
import { byId } from '../quantity/byId.ts';
import type { Sense } from '../control/conditions/conditions.ts';
import type { EngineConfig } from '../control/engine/settings.ts';
import type { AroundIds } from '../control/host/boardEngine.ts';
import { engineOf } from '../garden/bind/engineOf.ts';
import { catalogueOf } from '../garden/edits/plan.ts';
import type { Channel, Garden } from '../garden/document/schema.ts';
import type { Quantity } from '../quantity/quantities.ts';
import { headingOf } from './heading.ts';
import type { BoardPlan, Reads, SketchInput, SketchLine, SketchProblem } from './plan.ts';
import { outputOf, pinOfName, pinPairOfName } from './pins.ts';

/** What an input gives by its pins. Everything else speaks over a bus. */
const READ_BY: Partial<Readonly<Record<Quantity, Reads>>> = {
  moisture: 'analog',
  light: 'analog',
  level: 'analog',
  distance: 'distance',
  'moisture switch': 'digital',
  rain: 'digital',
  'skip switch': 'digital',
};

export type Planned =
  | { readonly ok: true; readonly plan: BoardPlan }
  | { readonly ok: false; readonly problems: readonly SketchProblem[] };

export function planBoard(garden: Garden, boardId: string): Planned {
  const board = byId(garden.boards, boardId);
  const own = garden.channels.filter((one) => one.boardId === boardId);
  const engine = engineOf(garden, boardId);
  const lines = garden.waterLines.filter((one) => one.boardId === boardId);
  const isFloat = (channel: Channel) =>
    garden.reservoirs.some(
      (tank) => tank.channelId === channel.id && tank.kind === 'float' && tank.float.threshold <= 1,
    );
  const read = own.map((channel) => ({ channel, input: inputOf(garden, channel, isFloat(channel)) }));
  const inputs = read.flatMap(({ input }) => ('kind' in input ? [] : [input]));
  const placeOf = (channelId: string | null) => inputs.findIndex((one) => one.channelId === channelId);
  const problems: SketchProblem[] = [];
  const need = (channelId: string | null, otherwise: SketchProblem): number => {
    const at = placeOf(channelId);
    if (at >= 0) return at;
    const found = read.find(({ channel }) => channel.id === channelId);
    problems.push(found && 'kind' in found.input ? found.input : otherwise);
    return 0;
  };
  if (lines.length + inputs.length === 0)
    problems.push({ kind: 'nothing-to-do', what: board?.name ?? boardId, sheet: 'bench/readout' });
  if (engine.contactIds.length > 0)
    problems.push({ kind: 'contacts-not-written', what: board?.name ?? boardId, sheet: 'rules/limits' });
  const sensorInputs = engine.sensors.map(({ by, members }, at) => {
    const line = lines.find((_, place) => engine.config.lines[place]?.sensor === at);
    const what = line?.name ?? '';
    const [only] = members;
    if (by !== 'one' || !only || only.factor !== 1) {
      problems.push({ kind: 'several-probes', what, sheet: 'rules/limits' });
      return 0;
    }
    return need(only.channelId, { kind: 'no-input-pin', what, sheet: 'bench/readout' });
  });
  const tankInputs = engine.tankChannelIds.map((channelId, at) => {
    const what = byId(garden.reservoirs, engine.tankIds[at] ?? '')?.name ?? '';
    return need(channelId, { kind: 'tank-unread', what, sheet: 'bench/dose' });
  });
  const outputs = lines.flatMap((line, at): SketchLine[] => {
    const config = engine.config.lines[at];
    if (config?.contradicts) problems.push({ kind: 'contradiction', what: line.name, sheet: 'rules/limits' });
    if (config?.sensor === null && config.program.kind !== 'timer' && config.program.kind !== 'follower')
      if (config.program.kind !== 'alert-only')
        problems.push({ kind: 'not-calibrated', what: line.name, sheet: 'bench/calibrate' });
    for (const sense of UNWRITTEN)
      if (config && isAsked(config.conditions, sense))
        problems.push({ kind: 'condition-not-written', what: line.name, sheet: 'rules/limits' });
    const output = outputOf(garden.wiring, catalogueOf(garden), line.id);
    if (output) return [{ id: line.id, name: line.name, output }];
    problems.push({ kind: 'no-output-pin', what: line.name, sheet: 'plan/wiring' });
    return [];
  });
  const asked = (at: number, ids: AroundIds, key: 'lightId' | 'rainId' | 'skipId', isOn: boolean) =>
    isOn
      ? need(ids[key], { kind: 'no-input-pin', what: lines[at]?.name ?? '', sheet: 'bench/readout' })
      : null;
  const around = engine.around.map((ids, at) => {
    const conditions = engine.config.lines[at]?.conditions;
    return {
      light: asked(at, ids, 'lightId', conditions?.darkBelow != null),
      rain: asked(at, ids, 'rainId', conditions?.noRain === true),
      skip: asked(at, ids, 'skipId', conditions?.noSkip === true),
    };
  });
  for (const what of takenTwice(inputs, outputs))
    problems.push({ kind: 'pin-taken-twice', what, sheet: 'plan/wiring' });
  if (problems.length > 0 || !board) return { ok: false, problems: onceEach(problems) };
  return {
    ok: true,
    plan: {
      garden: garden.name,
      board: board.name,
      traits: board.traits,
      adcBits: board.adcBits,
      inputs,
      lines: outputs,
      engine: engine.config,
      sensorInputs,
      tankInputs,
      around,
      heading: headingOf(
        garden,
        inputs,
        sensorInputs.flatMap((at) => inputs[at] ?? []),
        outputs,
      ),
      leftOut: read.flatMap(({ input }) => ('kind' in input ? [input] : [])),
    },
  };
}

/** "C2 and Roof pump, both on P35", for every pin that more than one thing is written to. */
function takenTwice(inputs: readonly SketchInput[], lines: readonly SketchLine[]): readonly string[] {
  const users = [
    ...inputs.flatMap(({ label, pin, second }) => [
      { label, pin },
      ...(second ? [{ label, pin: second }] : []),
    ]),
    ...lines.map(({ name, output }) => ({ label: name, pin: output.pin })),
  ];
  const byPin = new Map<string, string[]>();
  for (const { label, pin } of users) {
    const name = `${pin.kind === 'pin' ? 'P' : 'IN'}${pin.number}`;
    byPin.set(name, [...(byPin.get(name) ?? []), label]);
  }
  return [...byPin].flatMap(([name, labels]) =>
    labels.length > 1
      ? [`${[...new Set(labels)].join(' and ')}, ${labels.length === 2 ? 'both' : 'all'} on ${name}`]
      : [],
  );
}

/** Conditions that need a value in degrees or volts, which this program does not work out yet. */
const UNWRITTEN: readonly Sense[] = ['airTenthsC', 'soilTenthsC', 'battery'];
const isAsked = (conditions: EngineConfig['lines'][number]['conditions'], sense: Sense): boolean =>
  sense === 'airTenthsC'
    ? conditions.airBelowTenthsC !== null
    : sense === 'soilTenthsC'
      ? conditions.soilAboveTenthsC !== null
      : conditions.batteryAboveMv !== null;

const onceEach = (problems: readonly SketchProblem[]): SketchProblem[] => [
  ...new Map(problems.map((one) => [`${one.kind} ${one.what}`, one])).values(),
];

function inputOf(garden: Garden, channel: Channel, isFloat: boolean): SketchInput | SketchProblem {
  const probe = byId(garden.probes, channel.probeId);
  const what = channel.label || probe?.label || channel.quantity;
  const reads = isFloat ? 'digital' : READ_BY[channel.quantity];
  if (!reads || probe?.bus) return { kind: 'kind-not-written', what, sheet: 'bench/readout' };
  if (!NAME.test(channel.streamName)) return { kind: 'no-name', what, sheet: 'bench/readout' };
  const common = { channelId: channel.id, name: channel.streamName, label: what, reads };
  const channelId = channel.id;
  if (reads === 'distance') {
    const pair = pinPairOfName(channel.pin);
    return pair
      ? { ...common, pin: pair[0], second: pair[1] }
      : { kind: 'no-input-pin', what, sheet: 'bench/readout', channelId, pins: 2 };
  }
  const pin = pinOfName(channel.pin);
  return pin
    ? { ...common, pin }
    : { kind: 'no-input-pin', what, sheet: 'bench/readout', channelId, pins: 1 };
}

/** Names that a line of the board can carry, and a string of its program as well. */
const NAME = /^[A-Za-z][A-Za-z0-9_.-]{0,59}$/;
