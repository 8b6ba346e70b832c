/** What a board's program needs of the garden, one thing after another, and what of it is missing. */
import { byId } from '../quantity/byId.ts';
import type { Conditions, Sense } from '../control/conditions/conditions.ts';
import type { ContactConfig } from '../control/contacts/contract.ts';
import type { AroundIds, BoardEngine } from '../control/host/boardEngine.ts';
import type { SensorSource } from '../control/host/combined.ts';
import { usesProbe } from '../control/programs/programs.ts';
import type { SensorConfig } from '../control/engine/settings.ts';
import type { SignalLimits } from '../control/signals.ts';
import { gardenCircuit } from '../garden/bind/gardenCircuit.ts';
import { ambientOf } from '../garden/bind/ambient.ts';
import { engineOf, sensorOfPlot } from '../garden/bind/engineOf.ts';
import { signalLimits } from '../garden/bind/plotFacts.ts';
import { DEFAULT_STALE_S, plotParts } from '../garden/bind/plotParts.ts';
import { NOTHING_CHOSEN } from '../garden/document/waterSchema.ts';
import { catalogueOf } from '../garden/edits/plan.ts';
import type { Channel, Garden } from '../garden/document/schema.ts';
import { hasRole } from '../wiring/circuit.ts';
import { displayOf } from './displays.ts';
import { farInputs, readThere } from './far.ts';
import { isInput, readInputs, type ReadInput } from './inputs.ts';
import type {
  SketchAround,
  SketchBus,
  SketchContact,
  SketchDisplay,
  SketchI2c,
  SketchInput,
  SketchLamp,
  SketchLine,
  SketchPower,
  SketchProblem,
  SketchSense,
  SketchSource,
  SketchWatch,
} from './plan.ts';
import { decimalsOf, NOTHING_ASKED } from './plan.ts';
import { lampPins, outputOf } from './pins.ts';
import { senseTable } from './senses.ts';

const NO_LIMITS: SignalLimits = {
  dryTenths: 0,
  wetTenths: 1001,
  soilLowTenthsC: null,
  soilHighTenthsC: null,
  airLowTenthsC: null,
  airHighTenthsC: null,
};

/** Notes what is missing while the plan is made. */
export class Planner {
  readonly problems: SketchProblem[] = [];
  readonly read: readonly ReadInput[];
  readonly inputs: readonly SketchInput[];
  readonly powers: readonly SketchPower[];
  readonly bus: SketchBus | null;
  readonly i2c: SketchI2c | null;
  readonly senses: SketchSense[] = [];
  readonly watches: (SketchWatch & { readonly plotId: string })[] = [];
  /** Sensors that only lamps go by. */
  readonly further: { readonly config: SensorConfig; readonly source: SketchSource }[] = [];
  readonly leftOut: SketchProblem[] = [];
  readonly engine: BoardEngine;

  constructor(
    readonly garden: Garden,
    readonly boardId: string,
  ) {
    this.engine = engineOf(garden, boardId);
    const { read, powers, bus, i2c } = readInputs(garden, boardId);
    this.read = [...read, ...farInputs(garden, boardId, this.engine)];
    this.bus = bus;
    this.i2c = i2c;
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
      const input = this.need(channelId, {
        kind: this.isElsewhere(channelId) ? 'other-board' : 'no-input-pin',
        what,
        sheet: 'bench/readout',
      });
      // The engine's whole numbers must be those that the board reads.
      const read = this.inputs[input];
      if (read && factor !== 10 ** decimalsOf(read)) this.miss('own-numbers', name, 'rules/limits');
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
    const found = channel && input ? this.senseAt(sense, channel, at) : null;
    if (input && found === null) this.miss('no-meaning', input.label, 'bench/readout');
    return found;
  }

  /** The same where nothing depends on it: null where it is not read here, or means nothing. */
  senseIfRead(sense: Sense, channel: Channel): number | null {
    const at = this.inputs.findIndex((one) => one.channelId === channel.id);
    return at < 0 ? null : this.senseAt(sense, channel, at);
  }

  private senseAt(sense: Sense, channel: Channel, at: number): number | null {
    const input = this.inputs[at];
    const adcBits = byId(this.garden.boards, channel.boardId)?.adcBits ?? 12;
    // What another board reads lies where that one can read it.
    const asRead = input?.far ? readThere(this.garden, channel) : input;
    const table = asRead && senseTable(this.garden, channel, sense, { ...asRead, adcBits });
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
    if (config.rule.kind === 'permit' && config.rule.restPermits && this.closesWhenDriven(one.id))
      this.miss('contact-turned-round', one.name, 'rules/limits');
    const around = this.around(
      this.engine.contactsAround[at],
      config.conditions,
      one.name,
      config.rule.kind === 'light' && config.rule.cell !== null,
    );
    return this.output('contacts', one).map((output) => ({ ...output, config, around }));
  }

  /** Its relay has only a contact that is open at rest: driven to forbid, it would let the other timer water. */
  private closesWhenDriven(contactId: string): boolean {
    const part = this.garden.wiring.parts.find(
      ({ stands }) => stands?.list === 'contacts' && stands.id === contactId,
    );
    const terminals = catalogueOf(this.garden).get(part?.entryId ?? '')?.terminals ?? [];
    return terminals.some((one) => one.type === 'switched' && one.side === 'open');
  }

  private output(
    list: 'waterLines' | 'contacts',
    { id, name }: { readonly id: string; readonly name: string },
  ): SketchLine[] {
    const output = outputOf(this.garden.wiring, catalogueOf(this.garden), { list, id });
    if (!output) this.miss('no-output-pin', name, 'plan/wiring');
    return output ? [{ id, name, output }] : [];
  }

  /** The sensor of a plot: that of a line or a contact, else one of its own behind theirs. */
  private sensorOf(plotId: string): number | null {
    const { garden, engine, boardId } = this;
    const users = [
      ...garden.waterLines
        .filter((one) => one.boardId === boardId)
        .map((one, at) => ({ plotId: one.plotId, sensor: engine.config.lines[at]?.sensor ?? null })),
      ...garden.contacts
        .filter((one) => one.boardId === boardId)
        .map((one, at) => ({ plotId: one.plotId, sensor: engine.contacts[at]?.sensor ?? null })),
    ];
    const known = users.find((one) => one.plotId === plotId && one.sensor !== null);
    if (known) return known.sensor;
    const parts = plotParts(garden, plotId);
    const sensor = parts && sensorOfPlot(parts, DEFAULT_STALE_S);
    if (!sensor) return null;
    this.further.push({ config: sensor.config, source: this.source(sensor.source, parts.plot.name) });
    return engine.config.sensors.length + this.further.length - 1;
  }

  private watch(plotId: string): number {
    const known = this.watches.findIndex((one) => one.plotId === plotId);
    if (known >= 0) return known;
    const { garden, boardId, engine } = this;
    const plot = byId(garden.plots, plotId);
    const lines = garden.waterLines.filter((one) => one.plotId === plotId);
    const place = { boardId, plotId, chosen: lines[0]?.around ?? NOTHING_CHOSEN };
    const board = byId(garden.boards, boardId);
    const limits = plot ? signalLimits(plot) : NO_LIMITS;
    const darkBelow = board?.watch.darkBelow ?? null;
    let isBlind = lines.some((one) => one.boardId !== boardId);
    const sense = (kind: Sense, isAsked: boolean): number | null => {
      const channel = isAsked ? ambientOf(garden, place, kind) : null;
      if (!channel) return null;
      // What cannot be read here is not known here.
      const isRead = this.inputs.some((one) => one.channelId === channel.id);
      if (!isRead) isBlind = true;
      return isRead ? this.sense(kind, channel.id, plot?.name ?? '') : null;
    };
    const has = (...of: readonly (number | null)[]): boolean => of.some((one) => one !== null);
    const watch = {
      plotId,
      plot: plot?.name ?? '',
      sensor: this.sensorOf(plotId),
      lines: engine.lineIds.flatMap((id, at) => (lines.some((one) => one.id === id) ? [at] : [])),
      tanks: engine.tankIds.flatMap((id, at) => (lines.some((one) => one.tankId === id) ? [at] : [])),
      air: sense('airTenthsC', has(limits.airLowTenthsC, limits.airHighTenthsC)),
      soil: sense('soilTenthsC', has(limits.soilLowTenthsC, limits.soilHighTenthsC)),
      light: sense('light', darkBelow !== null),
      darkBelow,
      limits,
    };
    this.watches.push({ ...watch, isBlind });
    return this.watches.length - 1;
  }

  /** Every lamp, buzzer and display of the board that speaks for a plot. */
  lamps(): { readonly lamps: readonly SketchLamp[]; readonly displays: readonly SketchDisplay[] } {
    const displays: SketchDisplay[] = [];
    const { garden, boardId } = this;
    const circuit = gardenCircuit(garden);
    const board = garden.wiring.parts.find(
      ({ stands }) => stands?.list === 'boards' && stands.id === boardId,
    );
    const lamps = [...circuit.parts.values()].flatMap((placed): SketchLamp[] => {
      const { label: name, stands, boardId: of } = placed.part;
      if (stands?.list !== 'plots' || !board || of !== board.id) return [];
      if (hasRole(placed, 'display')) {
        const display = displayOf(this, circuit, placed, stands.id, this.watch(stands.id));
        if (display) displays.push(display);
        else this.miss('no-i2c', name, 'plan/wiring');
        return [];
      }
      const found = lampPins(circuit, placed);
      if (found === 'not written') {
        this.leftOut.push({ kind: 'lamp-not-written', what: name, sheet: 'plan/wiring' });
        return [];
      }
      if (found === 'not drawn') {
        this.miss('no-output-pin', name, 'plan/wiring');
        return [];
      }
      return [{ ...found, name, watch: this.watch(stands.id) }];
    });
    return { lamps, displays };
  }

  battery(): number | null {
    const { config, contacts, batteryId } = this.engine;
    const all = [...config.lines, ...contacts];
    return all.some(({ conditions }) => conditions.batteryAboveMv !== null)
      ? this.sense('battery', batteryId, 'The battery')
      : null;
  }
}
