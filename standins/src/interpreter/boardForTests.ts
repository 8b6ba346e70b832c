import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { loadMicroPython } from '@micropython/micropython-webassembly-pyscript/micropython.mjs';
import { pythonFileNames } from '@plain-trowel/core/sketch/files';
import { listText, restLevels } from '@plain-trowel/core/sketch/folder';
import type { LoadOptions, Program } from '@plain-trowel/core/sketch/loader/load';
import type { BoardPlan } from '@plain-trowel/core/sketch/plan';
import { pythonSettings } from '@plain-trowel/core/sketch/python';
import { PyBoard, type Interpreter, type Wires } from './pyBoard.ts';

const PYTHON = fileURLToPath(new URL('../../../engine/python/', import.meta.url));
export const pythonFile = (name: string): string => readFileSync(`${PYTHON}${name}`, 'utf8');

/** The files of a program that are the same on every board. */
export const COMMON = pythonFileNames({
  contacts: [],
  lamps: [],
  displays: [],
  bus: null,
  i2c: null,
  network: null,
  sleep: null,
});

export const interpreterForTests: Interpreter = (stdout) =>
  loadMicroPython({ heapsize: 4 * 1024 * 1024, linebuffer: false, stdout });

/** A board at the end of a serial line: what is written reaches it at once, and its clock goes on while somebody waits. */
export class BoardOnALine {
  readonly board: PyBoard;
  /** Everything that it has sent, and every change of an output, in order. */
  said = '';
  readonly levels: string[] = [];
  raw = 30_000;
  nowMs = 0;
  private heard: number[] = [];
  /** Bytes until the line is cut; then every use of it fails. */
  leftBytes = Infinity;
  /** A board whose USB is its own: each restart takes the line away until it is opened again. */
  losesLineAtRestart = false;
  private bootsSeen = 1;
  /** How raw paste is answered: by a board that has it, says that it has none, or does not know it. */
  paste: 'has' | 'says-no' | 'unknown' = 'unknown';
  private pasted: number[] | null = null;
  private asked = '';

  constructor(wires: Partial<Wires> = {}) {
    this.board = new PyBoard(
      interpreterForTests,
      pythonFile('host/host.py'),
      {
        analog: () => this.raw,
        contact: () => 1,
        echo: () => null,
        thermometer: () => null,
        bus: () => null,
        onI2c: () => false,
        i2c: () => null,
        onLevel: (pin, level) => this.levels.push(`${pin} ${level}`),
        ...wires,
      },
      (bytes) => {
        if (!this.isAway) this.heard.push(...bytes);
        this.said += String.fromCharCode(...bytes);
      },
    );
  }

  async write(bytes: Uint8Array): Promise<void> {
    for (const byte of bytes) {
      if (this.leftBytes <= 0 || this.isAway) throw new Error('cut');
      this.leftBytes -= 1;
      await this.byte(byte);
    }
  }

  async read(waitMs: number): Promise<Uint8Array> {
    if (this.leftBytes <= 0) throw new Error('cut');
    for (let passedMs = 0; this.heard.length === 0 && !this.isAway && passedMs < waitMs; passedMs += 50)
      await this.wait(50);
    if (this.isAway && this.heard.length === 0) throw new Error('away');
    return Uint8Array.from(this.heard.splice(0));
  }

  async reopen(): Promise<boolean> {
    // What it said meanwhile nobody has heard.
    await this.wait(500);
    this.heard = [];
    this.bootsSeen = this.board.boots;
    return this.leftBytes > 0;
  }

  private get isAway(): boolean {
    return this.losesLineAtRestart && this.board.boots !== this.bootsSeen;
  }

  /** Time goes by. */
  async wait(ms: number): Promise<void> {
    this.nowMs += ms;
    await this.board.turn(ms);
  }

  async seconds(count: number): Promise<void> {
    for (let at = 0; at < count; at += 1) await this.wait(1000);
  }

  async type(text: string): Promise<void> {
    await this.board.hear(new TextEncoder().encode(text));
  }

  /** Types a line and gives what the board answers. */
  async ask(text: string): Promise<string> {
    const from = this.said.length;
    await this.type(`${text}\n`);
    await this.wait(1);
    return this.said.slice(from).replace(/\r/g, '');
  }

  /** What this build of the interpreter does not have: raw paste, as its documents describe it. */
  private async byte(byte: number): Promise<void> {
    if (this.pasted) {
      if (byte !== 4) {
        this.pasted.push(byte);
        if (this.pasted.length % WINDOW === 0) this.heard.push(1);
        return;
      }
      const code = this.pasted;
      this.pasted = null;
      this.heard.push(4);
      const from = this.heard.length;
      await this.board.hear([...code, 4]);
      // The interpreter's "OK" belongs to the ordinary way.
      this.heard.splice(from, 2);
      return;
    }
    const isRaw = !this.board.isRunning;
    if (isRaw && (byte === 5 || this.asked !== '')) {
      this.asked += String.fromCharCode(byte);
      if (this.asked === '\u0005' || this.asked === '\u0005A') return;
      const isQuestion = this.asked === '\u0005A\u0001';
      const letters = Array.from(this.asked, (one) => one.charCodeAt(0));
      this.asked = '';
      if (isQuestion && this.paste === 'has') {
        this.pasted = [];
        this.heard.push(82, 1, WINDOW % 256, Math.floor(WINDOW / 256));
      } else if (isQuestion && this.paste === 'says-no') {
        this.heard.push(82, 0);
      } else {
        await this.board.hear(isQuestion ? letters.slice(1, 2) : letters);
      }
      return;
    }
    await this.board.hear([byte]);
  }
}

const WINDOW = 128;

export const PUMP = 5;

/** A program with one pump, that names itself; it waters below 40 %. */
export const programOf = (name: string, doseMl = 400): Program => ({
  files: [
    {
      name: 'settings.py',
      text: `from engine import Fields
PROGRAM = "${name}"
ADC_BITS = 12
REFERENCE_MV = 3300
INPUTS = [("analog", (34,), "c2")]
FED_BY = (None,)
NETWORK = None
SLEEP = None
BUS = None
I2C = None
DISPLAYS = []
TEXTS = []
POWERS = []
SOURCES = [0]
TANK_INPUTS = ()
SENSES = []
AROUND = [(None, None, None, None, None)]
BATTERY = None
OUTPUTS = [(${PUMP}, False, "Pump")]
LINE_IDS = ("pump",)
CONTACT_OUTPUTS = []
CONTACT_IDS = ()
CONTACTS_AROUND = []
CONTACTS = []
WATCHES = []
LAMPS = []
SIGNALS = []
CONFIG = Fields(at_once=1, sensors=[Fields(table=((1000, 1000), (3000, 0)), low_raw=100, high_raw=4000, soil_low_raw=100, soil_high_raw=4000, stale_after_s=60, leap_tenths=50, settle_s=30)], tanks=[], lines=[Fields(enabled=True, contradicts=False, sensor=0, tank=None, flow_ml_per_min=600, tube_ms=0, program=Fields(kind=4, start_tenths=400, stop_tenths=600, dose_ml=${doseMl}, soak_s=0, most_pulses=0, rest_s=0, interval_s=60, interrupts=False, leader=0, share_percent=0, every_nth=0, slots=()), fallback_ml=0, conditions=Fields(hours=None, dark_below=None, air_below_tenths_c=None, soil_above_tenths_c=None, no_rain=False, battery_above_mv=None, no_skip=False), max_run_s=60, daily_max_ml=1000, min_interval_s=60, rise_tenths=0, response_s=60, no_rise_times=3, proves_below_tenths=0)])
`,
    },
    ...COMMON.map((file) => ({ name: file, text: pythonFile(file) })),
  ],
  starter: { name: 'main.py', text: pythonFile('main.py') },
  rest: [[PUMP, 0]],
  name,
});

export const optionsFor = (line: BoardOnALine, more: Partial<LoadOptions> = {}): LoadOptions => ({
  interrupt: false,
  onProgress: () => undefined,
  signal: null,
  nowMs: () => line.nowMs,
  pause: (ms) => line.wait(ms),
  ...more,
});

const encoder = new TextEncoder();
/** Files of a board's program, by path, as the loader puts them there. */
export function filesOf(plan: BoardPlan): ReadonlyMap<string, Uint8Array> {
  const files = [
    { name: 'settings.py', text: pythonSettings(plan, '2026-06-01') },
    ...pythonFileNames(plan).map((name) => ({ name, text: pythonFile(name) })),
  ];
  return new Map([
    ...files.map(({ name, text }) => [`/trowel_a/${name}`, encoder.encode(text)] as const),
    ['/trowel_a/files.txt', encoder.encode(listText(files, 1, restLevels(plan)))],
    ['/main.py', encoder.encode(pythonFile('main.py'))],
  ]);
}

/** The files of a made-up program as they lie on a board, with more beside them, and its settings changed. */
export function changedFiles(
  name: string,
  more: readonly string[],
  change: (settings: string) => string,
): ReadonlyMap<string, Uint8Array> {
  const files = [...programOf(name).files, ...more.map((one) => ({ name: one, text: pythonFile(one) }))].map(
    (one) => (one.name === 'settings.py' ? { ...one, text: change(one.text) } : one),
  );
  return new Map([
    ...files.map((one) => [`/trowel_a/${one.name}`, encoder.encode(one.text)] as const),
    ['/trowel_a/files.txt', encoder.encode(listText(files, 1, [[5, 0]]))],
    ['/main.py', encoder.encode(pythonFile('main.py'))],
  ]);
}
