/**
 * A garden one of whose boards runs its own program, written as for the real one, in the real interpreter: its pins are wired to the stand-ins' pots, tanks and
 * probes. The other boards stand in as always.
 */
import { mapOf } from '@plain-trowel/core/bus/registers';
import { fullScaleCounts } from '@plain-trowel/core/electrics/converter';
import type { BoardPlan, SketchInput } from '@plain-trowel/core/sketch/plan';
import { pinsOfOutput } from '@plain-trowel/core/sketch/pins';
import type { EventDraft } from '@plain-trowel/core/records/event';
import type { Garden } from '@plain-trowel/core/garden/document/schema';
import { advance, measure, reboot, type BoardLine, type World } from '../board/world.ts';
import { setupOf, type Setup } from '../board/setup.ts';
import { gardenEventOf } from '../board/worldEvent.ts';
import { answerFrame, newBusProbe, type BusProbe } from '../busProbe/busProbe.ts';
import { i2cBytes, isAskedBy } from './i2cParts.ts';
import { PyBoard, type Interpreter } from './pyBoard.ts';

export type PyTurn = { readonly lines: readonly BoardLine[]; readonly events: readonly EventDraft[] };

const SECOND_MS = 1000;
const ALL_BITS = 16;
/** Sound there and back, mm to microseconds, as the program takes it. */
const US_PER_MM = 2000 / 343;

export class PyWorld {
  world: World;
  private setup: Setup;
  private values: ReadonlyMap<string, number> = new Map();
  private readonly board: PyBoard;
  private heard = '';
  private lines: BoardLine[] = [];
  /** Pins that are high: probes may hang on them. */
  private readonly fed = new Set<number>();
  private leftMs = 0;
  private readonly busProbes: BusProbe[];

  /** @param files of the board, by path @param host the text of engine/python/host/host.py */
  constructor(
    garden: Garden,
    private readonly boardId: string,
    private readonly plan: BoardPlan,
    private readonly files: ReadonlyMap<string, Uint8Array>,
    world: World,
    interpreter: Interpreter,
    host: string,
  ) {
    this.setup = this.withoutOwn(garden);
    this.busProbes = garden.probes.flatMap(({ bus }) => {
      const map = bus && mapOf(garden.registerMaps, bus.mapId);
      return bus && map ? [newBusProbe(bus.address, map, world.seed)] : [];
    });
    this.world = { ...reboot(world, this.setup, world.timeMs), driven: {} };
    this.board = new PyBoard(
      interpreter,
      host,
      {
        analog: (pin) => this.counts(pin),
        contact: (pin) => (this.valueAt(pin) === 0 ? 0 : 1),
        echo: (pin) => this.echo(pin),
        thermometer: (pin) => this.sixteenths(pin),
        bus: (frame) => this.answer(frame),
        onI2c: (address) =>
          [...(this.plan.i2c?.parts ?? []), ...this.plan.displays].some((one) => one.address === address),
        i2c: (address, written) => this.i2cAnswer(address, written),
        onLevel: (pin, level) => this.drive(pin, level),
      },
      (bytes) => this.print(bytes),
    );
  }

  async start(): Promise<void> {
    this.look();
    await this.board.boot(this.files);
  }

  /** Lets time go by, in seconds of the board. */
  async run(durationMs: number, lineEveryMs: number): Promise<PyTurn> {
    const events: EventDraft[] = [];
    this.leftMs += durationMs;
    while (this.leftMs >= SECOND_MS) {
      this.leftMs -= SECOND_MS;
      const step = advance(this.world, this.setup, this.world.timeMs + SECOND_MS, lineEveryMs);
      this.world = step.world;
      // What its probes print comes from its own program.
      this.lines.push(...step.lines.filter((line) => line.boardId !== this.boardId));
      events.push(...step.events.flatMap(gardenEventOf));
      this.look();
      await this.board.turn(SECOND_MS);
    }
    const lines = this.lines;
    this.lines = [];
    return { lines, events };
  }

  /** Types a line at the board's console. */
  type(text: string): Promise<void> {
    return this.board.hear(new TextEncoder().encode(`${text}\n`));
  }

  setGarden(garden: Garden): void {
    this.setup = this.withoutOwn(garden);
  }

  change(edit: (world: World, setup: Setup) => World): void {
    this.world = edit(this.world, this.setup);
  }

  private withoutOwn(garden: Garden): Setup {
    const setup = setupOf(garden);
    return { ...setup, engines: setup.engines.filter((one) => one.boardId !== this.boardId) };
  }

  private look(): void {
    const measured = measure(this.world, this.setup);
    this.world = measured.world;
    this.values = measured.values;
  }

  private inputAt(pin: number): SketchInput | undefined {
    return this.plan.inputs.find((one) => one.pin.number === pin || one.second?.number === pin);
  }

  /** Nothing comes from a probe that is not fed now. */
  private valueAt(pin: number): number | null {
    const input = this.inputAt(pin);
    return input ? this.valueOf(input) : null;
  }

  private valueOf(input: SketchInput): number | null {
    const feeding = input.power === undefined ? undefined : this.plan.powers[input.power];
    return feeding && !this.fed.has(feeding.pin.number) ? 0 : (this.values.get(input.channelId) ?? null);
  }

  private counts(pin: number): number | null {
    const value = this.valueAt(pin);
    if (value === null) return null;
    const { adcBits, referenceMv } = this.plan;
    const counts =
      this.inputAt(pin)?.reads === 'volts' ? (1000 * value * fullScaleCounts(adcBits)) / referenceMv : value;
    return Math.max(0, Math.round(counts)) * 2 ** (ALL_BITS - adcBits);
  }

  private echo(pin: number): number | null {
    const mm = this.valueAt(pin);
    return mm === null ? null : Math.ceil(mm * US_PER_MM);
  }

  private sixteenths(pin: number): number | null {
    const degrees = this.valueAt(pin);
    return degrees === null ? null : Math.round(16 * degrees);
  }

  /** Whoever on the bus has that address. */
  private answer(frame: Uint8Array): Uint8Array | null {
    for (const [at, probe] of this.busProbes.entries()) {
      const answered = answerFrame(probe, frame);
      this.busProbes[at] = answered.probe;
      if (answered.bytes) return answered.bytes;
    }
    return null;
  }

  /** What a part says after this was written to it. */
  private i2cAnswer(address: number, written: string): Uint8Array | null {
    const asked = this.plan.inputs.flatMap((input) => {
      const ask = input.asked && this.plan.i2c?.asks[input.asked.place];
      return ask && input.asked.address === address && isAskedBy(written, ask.read) ? [{ input, ask }] : [];
    });
    const [one] = asked;
    const value = one && this.valueOf(one.input);
    return one && value !== null && value !== undefined ? i2cBytes(one.ask.read, value) : null;
  }

  private drive(pin: number, level: number): void {
    if (level === 1) this.fed.add(pin);
    else this.fed.delete(pin);
    const one = [...this.plan.lines, ...this.plan.contacts].find(({ output }) =>
      pinsOfOutput(output).some(({ number }) => number === pin),
    );
    if (!one) return;
    const { [one.id]: sinceMs, ...others } = this.world.driven ?? {};
    const { pulses, latch, activeLow } = one.output;
    // A latching valve turns when a pulse begins, and stays so.
    if (latch && (level === 1) === activeLow) return;
    const isDriven = latch
      ? pin !== latch.shut.number
      : pulses
        ? Math.abs(level - pulses.onUs) < Math.abs(level - pulses.offUs)
        : (level === 1) !== activeLow;
    this.world = {
      ...this.world,
      driven: isDriven ? { ...others, [one.id]: sinceMs ?? this.world.timeMs } : others,
    };
  }

  private print(bytes: Uint8Array): void {
    this.heard += new TextDecoder().decode(bytes);
    const rows = this.heard.split(/\r?\n/);
    this.heard = rows.pop() ?? '';
    for (const text of rows) this.lines.push({ boardId: this.boardId, text, atMs: this.world.timeMs });
  }
}
