/**
 * A board that runs MicroPython: the real interpreter, in its WebAssembly build, with pins, clock and files of ours. It can be written to and listened to like a
 * serial line, restarts as a board does, and its start is `/main.py`.
 */
import type { MicroPython } from '@micropython/micropython-webassembly-pyscript/micropython.mjs';

export type Interpreter = (stdout: (bytes: Uint8Array) => void) => Promise<MicroPython>;

/** What the board's pins are wired to. */
export type Wires = {
  /** 0 to 65 535, whatever the converter has; null: this pin cannot be read. */
  readonly analog: (pin: number) => number | null;
  readonly contact: (pin: number, isPulledUp: boolean) => 0 | 1;
  /** How long the pulse at a pin lasts, microseconds; null: none comes. */
  readonly echo: (pin: number) => number | null;
  /** What the 1-Wire thermometer on a pin measures, sixteenths of a degree; null: none answers. */
  readonly thermometer: (pin: number) => number | null;
  /** What the probes on its bus answer to a frame; null: nobody does. */
  readonly bus: (frame: Uint8Array) => Uint8Array | null;
  /** Whether a part on I2C has an address, and what it answers after this was written to it (hexadecimal, "/" between two writes); null: nobody does. */
  readonly onI2c: (address: number) => boolean;
  readonly i2c: (address: number, written: string) => Uint8Array | null;
  /** The network that its radio finds; absent: none. */
  readonly net?: NetWires;
  /** An output changed, or became one. */
  readonly onLevel: (pin: number, level: number) => void;
};

/** A network with a gateway in it, as a board's radio and sockets find it. Bytes as hexadecimal text. */
export type NetWires = {
  readonly join: (name: string, password: string) => void;
  readonly isJoined: () => boolean;
  /** A number for the connection; null: nobody listens there. */
  readonly connect: (host: string, port: number) => number | null;
  /** How many bytes went out; null: none could yet. */
  readonly send: (connection: number, hex: string) => number | null;
  /** What has come; empty: that was all; null: nothing yet. */
  readonly receive: (connection: number, most: number) => string | null;
  readonly close: (connection: number) => void;
};

const CTRL_C = 3;
/** Folders that come with the interpreter and belong to no board. */
const OF_THE_BUILD: ReadonlySet<string> = new Set(['.', '..', 'tmp', 'home', 'dev', 'proc']);

type Call = (...of: readonly never[]) => unknown;

export class PyBoard {
  private python: MicroPython | null = null;
  private typed: number[] = [];
  private levels = new Map<number, number>();
  private nowMs = 0;
  private dogMs: number | null = null;
  private wantsReset = false;
  /** Until when it sleeps, ms of its clock; null: it is awake. */
  private sleepsUntilMs: number | null = null;
  private hasSlept = false;
  /** How long it really sleeps, of what its timer was asked for. */
  sleepsFrac = 1;
  /** How often it has been switched on. */
  boots = 0;

  /** @param host the text of engine/python/host/host.py @param onOutput what it sends over its serial line */
  constructor(
    private readonly interpreter: Interpreter,
    private readonly host: string,
    private readonly wires: Wires,
    private readonly onOutput: (bytes: Uint8Array) => void,
  ) {}

  /** Switches it on: with the files that it had, and these. */
  async boot(files: ReadonlyMap<string, Uint8Array> = new Map()): Promise<void> {
    const all = new Map([...this.files(), ...files]);
    this.wantsReset = false;
    this.sleepsUntilMs = null;
    this.typed = [];
    this.dogMs = null;
    this.levels.clear();
    this.boots += 1;
    let isQuiet = true;
    const python = await this.interpreter((bytes) => {
      if (!isQuiet) this.onOutput(bytes);
    });
    this.python = python;
    for (const [path, bytes] of all) writeFile(python, path, bytes);
    python.registerJsModule('bench', this.bench());
    python.runPython(`import sys\nsys.path.append('/')`);
    python.runPython(this.host);
    isQuiet = false;
    this.call('as_a_reset', python.globals.get('run_start'));
    await this.settle();
  }

  /** Lets its clock go on; a program that runs has one turn. */
  async turn(passedMs: number): Promise<void> {
    this.nowMs += passedMs;
    if (this.sleepsUntilMs !== null) {
      if (this.nowMs < this.sleepsUntilMs) return;
      this.hasSlept = true;
      await this.boot();
      this.hasSlept = false;
      return;
    }
    const wasRunning = this.isRunning;
    if (wasRunning) this.call('one_turn');
    this.call('run_timers');
    if (this.dogMs !== null && this.nowMs > this.dogMs) this.wantsReset = true;
    if (wasRunning || this.wantsReset) await this.settle();
  }

  /** Time goes by while its program does nothing. */
  async hang(passedMs: number): Promise<void> {
    this.nowMs += passedMs;
    if (this.dogMs !== null && this.nowMs > this.dogMs) await this.boot();
  }

  /** Bytes that somebody sends over the serial line. */
  async hear(bytes: Iterable<number>): Promise<void> {
    for (const byte of bytes) {
      // Nobody listens.
      if (this.sleepsUntilMs !== null) return;
      if (!this.isRunning) {
        this.python?.replProcessChar(byte);
      } else if (byte === CTRL_C) {
        this.call('interrupted');
        await this.settle();
      } else {
        this.typed.push(byte);
      }
      if (this.wantsReset) await this.boot();
    }
  }

  get isRunning(): boolean {
    return this.call('is_running') === true;
  }

  get isAsleep(): boolean {
    return this.sleepsUntilMs !== null;
  }

  levelOf(pin: number): number | null {
    return this.levels.get(pin) ?? null;
  }

  /** Power gone and back in this very moment. */
  cutPower(): Promise<void> {
    this.levels.clear();
    return this.boot();
  }

  /** A digit in a file becomes another, as in a memory that has been worn out. */
  spoil(path: string): void {
    const bytes = this.files().get(path);
    const at = bytes?.findIndex((byte) => byte >= 48 && byte < 57) ?? -1;
    if (!this.python || !bytes || at < 0) return;
    writeFile(
      this.python,
      path,
      bytes.map((byte, place) => (place === at ? byte + 1 : byte)),
    );
  }

  /** Every file on it, by its path. */
  files(): ReadonlyMap<string, Uint8Array> {
    return this.python ? new Map(filesIn(this.python, '/')) : new Map();
  }

  /** After something ran: restarts, or comes to the prompt. */
  private async settle(): Promise<void> {
    if (this.sleepsUntilMs !== null) return;
    if (this.wantsReset) await this.boot();
    else if (!this.isRunning) this.python?.replInit();
  }

  private call(name: string, ...of: readonly unknown[]): unknown {
    return (this.python?.globals.get(name) as Call | undefined)?.(...(of as readonly never[]));
  }

  private bench() {
    return {
      analog: (pin: number) => this.wires.analog(pin),
      echo: (pin: number) => this.wires.echo(pin),
      thermometer: (pin: number) => this.wires.thermometer(pin),
      bus: (hex: string) => bytesToHex(this.wires.bus(hexToBytes(hex)) ?? new Uint8Array()),
      onI2c: (address: number) => this.wires.onI2c(address),
      i2c: (address: number, written: string) => {
        const answer = this.wires.i2c(address, written);
        return answer && bytesToHex(answer);
      },
      chance: () => Math.floor(Math.random() * 256),
      join: (name: string, password: string) => this.wires.net?.join(name, password),
      isJoined: () => this.wires.net?.isJoined() ?? false,
      connect: (host: string, port: number) => this.wires.net?.connect(host, port) ?? null,
      send: (connection: number, hex: string) => this.wires.net?.send(connection, hex) ?? null,
      receive: (connection: number, most: number) => this.wires.net?.receive(connection, most) ?? null,
      close: (connection: number) => this.wires.net?.close(connection),
      contact: (pin: number, isPulledUp: boolean) => this.wires.contact(pin, isPulledUp),
      level: (pin: number, level: number) => {
        if (this.levels.get(pin) === level) return;
        this.levels.set(pin, level);
        this.wires.onLevel(pin, level);
      },
      levelOf: (pin: number) => this.levels.get(pin) ?? 0,
      ms: () => this.nowMs,
      feed: (timeoutMs: number) => {
        this.dogMs = this.nowMs + timeoutMs;
      },
      reset: () => {
        this.wantsReset = true;
      },
      hasSlept: () => this.hasSlept,
      sleep: (ms: number) => {
        this.sleepsUntilMs = this.nowMs + ms * this.sleepsFrac;
        this.dogMs = null;
        // Nothing holds its pins.
        this.levels.clear();
      },
      waiting: () => this.typed.length > 0,
      typed: () => String.fromCharCode(this.typed.shift() ?? 0),
    };
  }
}

const bytesToHex = (bytes: Uint8Array): string =>
  Array.from(bytes, (one) => one.toString(16).padStart(2, '0')).join('');
const hexToBytes = (hex: string): Uint8Array =>
  Uint8Array.from({ length: hex.length / 2 }, (_, at) => Number.parseInt(hex.slice(2 * at, 2 * at + 2), 16));

function writeFile({ FS }: MicroPython, path: string, bytes: Uint8Array): void {
  const folders = path.split('/').slice(1, -1);
  for (let depth = 1; depth <= folders.length; depth += 1) {
    const folder = `/${folders.slice(0, depth).join('/')}`;
    if (!FS.analyzePath(folder).exists) FS.mkdir(folder);
  }
  FS.writeFile(path, bytes);
}

function* filesIn({ FS }: MicroPython, folder: string): Generator<[string, Uint8Array]> {
  for (const name of FS.readdir(folder)) {
    if (name === '.' || name === '..' || (folder === '/' && OF_THE_BUILD.has(name))) continue;
    const path = folder === '/' ? `/${name}` : `${folder}/${name}`;
    if (FS.isDir(FS.stat(path).mode)) yield* filesIn({ FS } as MicroPython, path);
    else yield [path, FS.readFile(path)];
  }
}
