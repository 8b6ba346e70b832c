/** A board's program, planned from the garden: whole, or a list of what is still missing. */
import { byId } from '../quantity/byId.ts';
import type { Conditions, Sense } from '../control/conditions/conditions.ts';
import type { ContactConfig } from '../control/contacts/contract.ts';
import type { AroundIds, BoardEngine } from '../control/host/boardEngine.ts';
import type { SensorSource } from '../control/host/combined.ts';
import { usesProbe } from '../control/programs/programs.ts';
import { engineOf } from '../garden/bind/engineOf.ts';
import { catalogueOf } from '../garden/edits/plan.ts';
import type { Board, Garden } from '../garden/document/schema.ts';
import { headingOf } from './heading.ts';
import { isInput, readInputs, type ReadInput } from './inputs.ts';
import type {
  BoardPlan,
  SketchAround,
  SketchContact,
  SketchInput,
  SketchLine,
  SketchPower,
  SketchProblem,
  SketchSense,
  SketchSource,
} from './plan.ts';
import { NOTHING_ASKED, inputsOf } from './plan.ts';
import { outputOf } from './pins.ts';
import { senseTable } from './senses.ts';

export type Planned =
  | { readonly ok: true; readonly plan: BoardPlan }
  | { readonly ok: false; readonly problems: readonly SketchProblem[] };

/** Notes what is missing while the plan is made. */
class Planner {
  readonly problems: SketchProblem[] = [];
  readonly read: readonly ReadInput[];
  readonly inputs: readonly SketchInput[];
  readonly powers: readonly SketchPower[];
  readonly senses: SketchSense[] = [];
  readonly engine: BoardEngine;

  constructor(
    readonly garden: Garden,
    readonly boardId: string,
  ) {
    this.engine = engineOf(garden, boardId);
    const { read, powers } = readInputs(garden, boardId);
    this.read = read;
    this.powers = powers;
    this.inputs = this.read.flatMap(({ input }) => (isInput(input) ? [input] : []));
  }

  miss(kind: SketchProblem['kind'], what: string, sheet: SketchProblem['sheet']): void {
    this.problems.push({ kind, what, sheet });
  }

  /** Place of a channel in the inputs; -1 with a note of why it has none. */
  need(channelId: string | null, otherwise: SketchProblem): number {
    const at = this.inputs.findIndex((one) => one.channelId === channelId);
    if (at >= 0) return at;
    const found = this.read.find(({ channel }) => channel.id === channelId);
    this.problems.push(found && !isInput(found.input) ? found.input : otherwise);
    return -1;
  }

  source({ by, members }: SensorSource, what: string): SketchSource {
    const placed = members.map(({ channelId, factor, table, lowRaw, highRaw }) => {
      const name = byId(this.garden.channels, channelId)?.label || what;
      if (factor !== 1) this.miss('own-numbers', name, 'rules/limits');
      const input = this.need(channelId, {
        kind: this.isElsewhere(channelId) ? 'other-board' : 'no-input-pin',
        what,
        sheet: 'bench/readout',
      });
      return { input, table, lowRaw, highRaw };
    });
    return by === 'one' ? { by, input: placed[0]?.input ?? -1 } : { by, members: placed };
  }

  private isElsewhere(channelId: string | null): boolean {
    const channel = byId(this.garden.channels, channelId);
    return channel !== undefined && channel.boardId !== this.boardId;
  }

  /** Place of what a condition goes by in the senses; null where it is not asked for. */
  sense(sense: Sense, channelId: string | null, what: string): number | null {
    const channel = byId(this.garden.channels, channelId);
    const kind = this.isElsewhere(channelId) ? 'other-board' : 'no-input-pin';
    const at = this.need(channelId, { kind, what, sheet: 'bench/readout' });
    const input = this.inputs[at];
    const adcBits = byId(this.garden.boards, this.boardId)?.adcBits ?? 12;
    const table = channel && input && senseTable(this.garden, channel, sense, { ...input, adcBits });
    if (input && !table) this.miss('no-meaning', input.label, 'bench/readout');
    if (!table) return null;
    const known = this.senses.findIndex(
      (one) => one.input === at && JSON.stringify(one.table) === JSON.stringify(table),
    );
    if (known >= 0) return known;
    this.senses.push({ input: at, table });
    return this.senses.length - 1;
  }

  around(
    ids: AroundIds | undefined,
    conditions: Conditions,
    what: string,
    goesByLight = false,
  ): SketchAround {
    if (!ids) return NOTHING_ASKED;
    const asked = (isOn: boolean, sense: Sense, id: string | null) =>
      isOn ? this.sense(sense, id, what) : null;
    return {
      airTenthsC: asked(conditions.airBelowTenthsC !== null, 'airTenthsC', ids.airId),
      light: asked(conditions.darkBelow !== null || goesByLight, 'light', ids.lightId),
      rain: asked(conditions.noRain, 'rain', ids.rainId),
      soilTenthsC: asked(conditions.soilAboveTenthsC !== null, 'soilTenthsC', ids.soilId),
      skip: asked(conditions.noSkip, 'skip', ids.skipId),
    };
  }

  line(at: number, line: Garden['waterLines'][number]): SketchLine[] {
    const config = this.engine.config.lines[at];
    if (config?.contradicts) this.miss('contradiction', line.name, 'rules/limits');
    if (config?.sensor === null && usesProbe(config.program.kind))
      this.miss('not-calibrated', line.name, 'bench/calibrate');
    return this.output('waterLines', line);
  }

  contact(at: number, config: ContactConfig, one: Garden['contacts'][number]): SketchContact[] {
    if (config.contradicts) this.miss('contradiction', one.name, 'rules/limits');
    if (config.sensor === null && config.rule.kind === 'permit')
      this.miss('not-calibrated', one.name, 'bench/calibrate');
    const around = this.around(
      this.engine.contactsAround[at],
      config.conditions,
      one.name,
      config.rule.kind === 'light' && config.rule.cell !== null,
    );
    return this.output('contacts', one).map((output) => ({ ...output, config, around }));
  }

  private output(
    list: 'waterLines' | 'contacts',
    { id, name }: { readonly id: string; readonly name: string },
  ): SketchLine[] {
    const output = outputOf(this.garden.wiring, catalogueOf(this.garden), { list, id });
    if (!output) this.miss('no-output-pin', name, 'plan/wiring');
    return output ? [{ id, name, output }] : [];
  }

  battery(): number | null {
    const { config, contacts, batteryId } = this.engine;
    const all = [...config.lines, ...contacts];
    return all.some(({ conditions }) => conditions.batteryAboveMv !== null)
      ? this.sense('battery', batteryId, 'The battery')
      : null;
  }
}

export function planBoard(garden: Garden, boardId: string): Planned {
  const board = byId(garden.boards, boardId);
  const planner = new Planner(garden, boardId);
  const { engine, inputs, powers } = planner;
  const own = <T extends { readonly boardId: string }>(all: readonly T[]) =>
    all.filter((one) => one.boardId === boardId);
  const lines = own(garden.waterLines);
  const contacts = own(garden.contacts);
  if (lines.length + contacts.length + inputs.length === 0)
    planner.miss('nothing-to-do', board?.name ?? boardId, 'bench/readout');
  const nameOfSensor = (at: number): string =>
    lines.find((_, place) => engine.config.lines[place]?.sensor === at)?.name ??
    contacts.find((_, place) => engine.contacts[place]?.sensor === at)?.name ??
    '';
  const sources = engine.sensors.map((one, at) => planner.source(one, nameOfSensor(at)));
  const tankInputs = engine.tankChannelIds.map((channelId, at) => {
    const what = byId(garden.reservoirs, engine.tankIds[at] ?? '')?.name ?? '';
    return planner.need(channelId, { kind: 'tank-unread', what, sheet: 'bench/dose' });
  });
  const outputs = lines.flatMap((line, at) => planner.line(at, line));
  const around = engine.config.lines.map(({ conditions }, at) =>
    planner.around(engine.around[at], conditions, lines[at]?.name ?? ''),
  );
  const switched = contacts.flatMap((one, at) => {
    const config = engine.contacts[at];
    return config ? planner.contact(at, config, one) : [];
  });
  const battery = planner.battery();
  for (const what of takenTwice(inputs, powers, [...outputs, ...switched]))
    planner.miss('pin-taken-twice', what, 'plan/wiring');
  if (planner.problems.length > 0 || !board) return { ok: false, problems: onceEach(planner.problems) };
  const sensorInputs = sources.flatMap(inputsOf).flatMap((at) => inputs[at] ?? []);
  return {
    ok: true,
    plan: {
      garden: garden.name,
      board: board.name,
      traits: traitsOf(garden, board),
      adcBits: board.adcBits,
      referenceMv: referenceMv(garden, board),
      inputs,
      powers,
      lines: outputs,
      contacts: switched,
      engine: engine.config,
      sources,
      tankInputs,
      senses: planner.senses,
      around,
      battery,
      heading: headingOf(garden, { inputs, powers, sensors: sensorInputs, lines: [...outputs, ...switched] }),
      leftOut: planner.read.flatMap(({ input }) => (isInput(input) ? [] : [input])),
    },
  };
}

/** What stands for the board in the wiring, and the facts of it. */
function drawnAs(garden: Garden, { id }: Board) {
  const part = garden.wiring.parts.find(({ stands }) => stands?.list === 'boards' && stands.id === id);
  const entry = part && catalogueOf(garden).get(part.entryId);
  return { name: entry?.name ?? null, facts: { ...entry?.facts, ...part?.settings } };
}

/** As the garden has it, and as it is drawn where that says something else: either may tell that it is a small one. */
function traitsOf(garden: Garden, board: Board): string {
  const { name } = drawnAs(garden, board);
  return name === null || name === board.traits ? board.traits : `${board.traits}; drawn as ${name}`;
}

/** What the board's converter compares with, mV: as its entry in the wiring says, else its supply. */
const referenceMv = (garden: Garden, board: Board): number =>
  Math.round((drawnAs(garden, board).facts.adcReferenceV ?? board.supplyV) * 1000);

/** "C2 and Roof pump, both on P35", for every pin that more than one thing is written to. */
function takenTwice(
  inputs: readonly SketchInput[],
  powers: readonly SketchPower[],
  lines: readonly SketchLine[],
): readonly string[] {
  const users = [
    ...powers.map(({ pin }, at) => ({
      label: `the supply of ${inputs.flatMap(({ power, label }) => (power === at ? [label] : [])).join(', ')}`,
      pin,
    })),
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

const onceEach = (problems: readonly SketchProblem[]): SketchProblem[] => [
  ...new Map(problems.map((one) => [`${one.kind} ${one.what}`, one])).values(),
];
