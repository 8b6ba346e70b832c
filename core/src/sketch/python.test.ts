/** The board's program in MicroPython, run by its WebAssembly build on a board of ours. */
import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import {
  loadMicroPython,
  type MicroPython,
} from '@micropython/micropython-webassembly-pyscript/micropython.mjs';
import fc from 'fast-check';
import { beforeAll, expect, test } from 'vitest';
import { planBoard } from './boardPlan.ts';
import type { BoardPlan } from './plan.ts';
import { oneStickOnePump } from './gardenForTests.ts';
import {
  CONTACT_TALK,
  contactSwitchesOfPage,
  contactTold,
  everyProgram,
  limitsLines,
  REFUSED_PROBES,
  wideRows,
  rawAt,
  richPlan,
  richRawsAt,
  richSwitchesOfPage,
  switchesOfPage,
  withContacts,
  withLamps,
  LATCH_PULSES,
  pulsesIn,
  withLatch,
} from './playForTests.ts';
import { settingsOf } from './settable.ts';
import { pythonProblems } from './fits.ts';
import { pythonSettings } from './python.ts';

const PYTHON = fileURLToPath(new URL('../../../engine/python/', import.meta.url));
const WRITTEN = '2026-11-28';

/** On a board whose analog pins have numbers. */
const planOf = (): BoardPlan => {
  const { garden, boardId } = oneStickOnePump();
  const planned = planBoard(garden, boardId);
  if (!planned.ok) throw new Error(JSON.stringify(planned.problems));
  const { plan } = planned;
  return {
    ...plan,
    traits: '3.3 V Wi-Fi board',
    inputs: plan.inputs.map((one) => ({ ...one, pin: { kind: 'pin', number: 34 } })),
  };
};
const plan = planOf();

/** A display of the first plot, on pins 21 and 22. */
const display = (name: string): BoardPlan['displays'][number] => ({
  name,
  watch: 0,
  sda: { kind: 'pin', number: 21 },
  scl: { kind: 'pin', number: 22 },
  address: 60,
  of: 'dots',
  raw: null,
  temperature: null,
  battery: null,
  tank: null,
  words: ['dry', 'low', 'right', 'wet', 'flooded'],
  edges: [150, 300, 700, 850],
  scale: 'percent',
  unit: '% span',
});

let python: MicroPython;
const call = (name: string) => python.globals.get(name) as (...of: readonly (string | number)[]) => string;

beforeAll(async () => {
  python = await loadMicroPython({ heapsize: 8 * 1024 * 1024 });
  for (const name of [
    'engine.py',
    'contacts.py',
    'signals.py',
    'board.py',
    'console.py',
    'settable.py',
    'reasons.py',
  ])
    python.FS.writeFile(`/${name}`, readFileSync(`${PYTHON}${name}`, 'utf8'));
  python.FS.writeFile('/settings.py', pythonSettings(plan, WRITTEN));
  python.FS.writeFile('/every.py', pythonSettings(everyProgram(plan), WRITTEN));
  python.runPython(`
import sys
sys.path.append('/')
import settings
from board import Board
raw = 0
now = 0
happened = []
printed = []
def read(how, pins):
    return raw
def switch(pin, level):
    if not happened or happened[-1][1] != level:
        happened.append((now, level))
def say(text):
    printed.append(text)
def begin():
    global board, now, happened, printed
    now = 0
    happened = []
    printed = []
    board = Board(settings, read, switch, say)
    return ''
def seconds(raws):
    global raw, now
    for one in raws.split():
        raw = int(one)
        now += 1
        board.second()
    return '|'.join('%d %d' % one for one in happened)
def typed(text):
    for one in text + chr(10):
        board.hear(one)
    said = '|'.join(printed)
    printed.clear()
    return said
`);
});

test('over a day it waters at the very seconds at which the engine of the page does', () => {
  call('begin')();
  let said = '';
  for (let from = 1; from <= 20_000; from += 500)
    said = call('seconds')(Array.from({ length: 500 }, (_, at) => rawAt(from + at)).join(' '));
  const asked = switchesOfPage(plan, 20_000);
  expect(asked.length).toBeGreaterThan(3);
  expect(said.split('|')).toEqual(['0 0', ...asked]);
});

test('and so does a board with a tank, a light cell, and a second line that goes by the clock', () => {
  const rich = richPlan(plan);
  python.FS.writeFile('/rich.py', pythonSettings(rich, WRITTEN));
  python.runPython(`
import rich
def rich_run(rows):
    global now, happened
    told = []
    raws = {}
    levels = {}
    def read_pin(how, pins):
        return raws[pins[0]]
    def switch_pin(pin, level):
        if levels.get(pin, 0) != level:
            told.append('%d %d %d' % (rich_board.now_s, 0 if pin == rich.OUTPUTS[0][0] else 1, level))
        levels[pin] = level
    class Nothing:
        now_s = 0
    rich_board = Nothing()
    rich_board = Board(rich, read_pin, switch_pin, lambda text: None)
    rich_board.console.obey('clock 0 0')
    pins = [one[1][0] for one in rich.INPUTS]
    for row in rows.split(';'):
        values = row.split(' ')
        for at in range(3):
            raws[pins[at]] = int(values[at])
        rich_board.second()
    return '|'.join(told)
`);
  const toS = 5000;
  const rows = Array.from({ length: toS }, (_, at) => richRawsAt(at + 1).join(' ')).join(';');
  const asked = richSwitchesOfPage(rich, toS);
  expect(asked.filter((one) => one.endsWith('1 1')).length).toBeGreaterThan(0);
  expect(call('rich_run')(rows).split('|')).toEqual(asked);
});

test('and so do contacts: a permit by three probes together and their air, a light by sun, clock and cell', () => {
  const held = withContacts(plan);
  python.FS.writeFile('/held.py', pythonSettings(held, WRITTEN));
  python.runPython(`
import held
def held_run(rows):
    told = []
    raws = {}
    levels = {}
    def read_pin(how, pins):
        return raws[pins[0]]
    def switch_pin(pin, level):
        if levels.get(pin, 0) != level:
            told.append('%d %d %d' % (held_board.now_s, 0 if pin == held.CONTACT_OUTPUTS[0][0] else 1, level))
        levels[pin] = level
    class Nothing:
        now_s = 0
    held_board = Nothing()
    held_board = Board(held, read_pin, switch_pin, lambda text: None)
    held_board.console.obey('clock 0 0')
    pins = [one[1][0] for one in held.INPUTS]
    for row in rows.split(';'):
        values = row.split(' ')
        for at in range(len(pins)):
            raws[pins[at]] = int(values[at])
        if len(values) > len(pins):
            held_board.console.obey('sun %s %s' % (values[-2], values[-1]))
        held_board.second()
    return '|'.join(told)
`);
  const toS = 20_000;
  const rows = Array.from({ length: toS }, (_, at) => {
    const { raws, sun } = contactTold(at + 1);
    return [...raws, ...(sun ? [sun.riseS, sun.setS] : [])].join(' ');
  }).join(';');
  const asked = contactSwitchesOfPage(held, toS);
  for (const contact of [0, 1])
    expect(asked.filter((one) => one.endsWith(`${contact} 1`)).length).toBeGreaterThan(0);
  expect(call('held_run')(rows).split('|')).toEqual(asked);
});

test('lamps: by the state of their plot, a buzzer each minute, and a test of every colour', () => {
  const shown = withLamps(plan);
  python.FS.writeFile('/shown.py', pythonSettings(shown, WRITTEN));
  python.runPython(`
import shown
def shown_run(rows):
    levels = {}
    beeps = [0]
    state = [1900]
    def switch_pin(pin, level):
        if pin == 13 and level == 1 and levels.get(13, 0) == 0:
            beeps[0] += 1
        levels[pin] = level
    said = []
    one = Board(shown, lambda how, pins: state[0], switch_pin, said.append)
    ms = 1000
    told = []
    for row in rows.split(';'):
        raw, seconds, typed = row.split(',')
        state[0] = int(raw)
        if typed:
            one.console.obey(typed)
        for _ in range(int(seconds)):
            for _ in range(10):
                ms += 100
                one.show(ms)
            one.second()
        one.show(ms)
        told.append(''.join([str(levels[pin]) for pin in (9, 10, 11, 12)]) + ' %d' % beeps[0])
    one.console.obey('why')
    told.append(said[-1])
    for typed in ('set lamp 1 dry 70.5', 'set lamp 2 dry 10', 'set lamp 1 damp 10', 'set lamp 1 wet 101', 'limits'):
        one.console.obey(typed)
        told.append(said[-1])
    return '|'.join(told)
`);
  // Well; too dry for two minutes, then for a while more; flooded; and each colour of a test.
  const rows = ['1900,700,', '2600,150,', '1300,700,', '1300,0,test lamp', '1300,1,', '1300,1,'];
  expect(call('shown_run')(rows.join(';')).split('|')).toEqual([
    '0010 0',
    '1100 3',
    '1001 3',
    '1100 4',
    '1010 4',
    '1001 4',
    '# lamp 1 too-wet',
    '# taken lamp 1 dry 70.5',
    '# no: no such lamp',
    '# no: dry or wet',
    '# no: a percent from 0 to 100 with at most one decimal',
    '# limits lamp 1 dry 70.5 wet 80.0',
  ]);
});

test('the console: readings by their names, reasons, an order that the guards hold, and rubbish', () => {
  call('begin')();
  call('seconds')('1300 1300 1300');
  expect(call('typed')('raw')).toContain('c2=1300');
  expect(call('typed')('why')).toMatch(/# line 1 rests [a-z-]+ today 0 ml/);
  call('typed')('test pump 1 3');
  expect(call('seconds')('1300 1300 1300 1300 1300')).toBe('0 0|4 1|7 0');
  const rubbish = [
    'hello',
    'test pump',
    'test pump 9 3',
    'test pump 1 99999999999',
    'clock',
    'clock 1',
    '   ',
  ];
  for (const one of rubbish) expect(call('typed')(one)).toContain('#');
});

test('it says a percent only of what it has read, and "unknown" where a reading gives none', () => {
  python.runPython(`
import settings
begin()
`);
  expect(call('typed')('all')).not.toContain('percent');
  call('seconds')('2900');
  expect(call('typed')('all')).toContain('# percent c2 unknown');
  call('seconds')('2000');
  expect(call('typed')('all')).toContain('# percent c2 50.0');
});

test('what can be set of each kind of program is what the page takes for it', () => {
  python.runPython(`
import every
settings = every
begin()
`);
  const asked = limitsLines(everyProgram(plan).engine.lines.map(settingsOf));
  const limits = call('typed')('limits').split('|');
  expect(limits.filter((one) => !one.startsWith('# limits probe'))).toEqual(asked);
});

test('the calibration of a probe is taken whole or not at all, holds at once, and is kept', () => {
  python.runPython(`
import settings
class Rows:
    rows = []
    def read(self, number):
        return self.rows
    def write(self, number, changed):
        self.rows = [(line, name, changed[(line, name)]) for line, name in changed]
        return True
store = Rows()
def begin_kept():
    global board, now, happened, printed
    now = 0
    happened = []
    printed = []
    board = Board(settings, read, switch, say, None, 3, None, store)
    return ''
begin_kept()
`);
  const typed = call('typed');
  const [sensor] = plan.engine.sensors;
  const before = `# limits probe 1 table 1100:1000,2900:0 soil ${sensor?.soilLowRaw}:${sensor?.soilHighRaw} leap ${((sensor?.leapTenths ?? 0) / 10).toFixed(1)}`;
  const limitsOfProbe = () =>
    typed('limits')
      .split('|')
      .filter((one) => one.startsWith('# limits probe'));
  expect(limitsOfProbe()).toEqual([before]);
  for (const bad of REFUSED_PROBES) expect(typed(`set probe ${bad}`), bad).toMatch(/^# no: /);
  expect(limitsOfProbe()).toEqual([before]);
  expect(typed('set probe 1 table 1000:1000,2000:500,3000:0')).toBe(
    '# taken probe 1 table 1000:1000,2000:500,3000:0',
  );
  expect(typed('set probe 1 soil -2000000000:3100')).toBe('# taken probe 1 soil -2000000000:3100');
  expect(typed('set probe 1 leap 12.5')).toBe('# taken probe 1 leap 12.5');
  call('seconds')('2500');
  expect(typed('all')).toContain('# percent c2 25.0');
  expect(typed('save')).toContain('# taken: kept');
  // What began anew with it has it still.
  python.runPython('settings.CONFIG.sensors[0].table = ((1100, 1000), (2900, 0))\nbegin_kept()');
  expect(limitsOfProbe()).toEqual([
    '# limits probe 1 table 1000:1000,2000:500,3000:0 soil -2000000000:3100 leap 12.5',
  ]);
  python.runPython('settings.CONFIG.sensors[0].table = ((1100, 1000), (2900, 0))\nbegin()');
});

test('limits of a permit contact and whether a contact switches are taken', () => {
  python.FS.writeFile('/talked.py', pythonSettings(withContacts(plan), WRITTEN));
  python.runPython(`
import talked
def talk(rows):
    said = []
    one = Board(talked, lambda how, pins: 0, lambda pin, level: None, said.append)
    for typed in rows.split('|'):
        one.console.obey(typed)
    return '|'.join([row for row in said if 'limits lamp' not in row and 'limits probe' not in row])
`);
  const said = call('talk')(CONTACT_TALK.map(([typed]) => typed).join('|')).split('|');
  expect(said).toEqual(CONTACT_TALK.flatMap(([, answers]) => answers));
});

test('a ring shows the colours of its plot, and a display its text, with pages that turn', () => {
  const shown = withLamps(plan);
  const [, , , ...rest] = shown.lamps;
  const one = { pin: { kind: 'pin', number: 9 } as const, activeLow: false };
  const written: BoardPlan = {
    ...shown,
    lamps: [...rest, { kind: 'ring', name: 'Ring', watch: 0, pins: [one], lights: 12 }],
    displays: [{ ...display('Display'), raw: 0 }],
    engine: { ...shown.engine, lines: shown.engine.lines.map((line) => ({ ...line, enabled: false })) },
  };
  python.FS.writeFile('/screen.py', readFileSync(`${PYTHON}screen.py`, 'utf8'));
  python.FS.writeFile('/written.py', pythonSettings(written, WRITTEN));
  python.runPython(`
import written
def written_run(rows):
    told = []
    state = [1900]
    class Shows:
        lit = None
        lines = None
        def ring(self, pin, lights, colours):
            self.lit = '%d %d %d' % (pin, lights, colours)
        def draw(self, one, lines):
            self.lines = '/'.join(lines)
            return True
    shows = Shows()
    one = Board(written, lambda how, pins: state[0], lambda pin, level: None, lambda text: None, None, 0, None, None, None, shows)
    ms = 0
    for row in rows.split(';'):
        raw, seconds = row.split(',')
        state[0] = int(raw)
        for _ in range(int(seconds)):
            ms += 1000
            one.second()
        one.show(ms)
        told.append(shows.lit + ': ' + shows.lines)
    return '|'.join(told)
`);
  // 2900 counts are 0 and 1100 are 100 %: 1900 are 55.6, 2600 are 16.7. "Water me" has two pages of four seconds.
  const rows = ['1900,700', '2600,604', '2600,4', '2600,4', '4095,10'];
  expect(call('written_run')(rows.join(';')).split('|')).toEqual([
    '9 12 2: right 55.6 %/span',
    '9 12 1: Water me: low',
    '9 12 1: 16.7 % span',
    '9 12 1: Water me: low',
    '9 12 7: Probe?',
  ]);
});

test('registers of every kind and scale mean what they do in C++', () => {
  python.FS.writeFile('/bus.py', readFileSync(`${PYTHON}bus.py`, 'utf8'));
  python.runPython(`
class Machine:
    UART = None
    Pin = None
sys.modules['machine'] = Machine()
from bus import whole_of
def wholes(rows):
    said = []
    for row in rows.split('|'):
        numbers = [int(one) for one in row.split(' ')]
        said.append(str(whole_of(numbers[:2], *numbers[2:])))
    return '|'.join(said)
`);
  const all = wideRows();
  expect(call('wholes')(all.map(([row]) => row).join('|')).split('|')).toEqual(all.map(([, whole]) => whole));
});

test('a servo is held by its pulses: shut from the start, open for as long as it is watered', () => {
  const lines = plan.lines.map((one) => ({
    ...one,
    output: { ...one.output, pulses: { offUs: 1100, onUs: 1900 } },
  }));
  python.FS.writeFile('/servo.py', pythonSettings({ ...plan, lines }, WRITTEN));
  python.runPython(`
import servo
def servo_run():
    told = []
    state = [0]
    def switch_pin(pin, level):
        if not told or told[-1].split(' ')[1] != str(level):
            told.append('%d %d' % (state[0], level))
    one = Board(servo, lambda how, pins: 1300, switch_pin, lambda text: None)
    for second in range(1, 12):
        state[0] = second
        if second == 4:
            one.console.obey('test pump 1 3')
        one.second()
    return '|'.join(told)
`);
  expect(call('servo_run')()).toBe('0 1100|4 1900|7 1100');
});

test('a latching valve gets the pulses that it gets in C++', () => {
  python.FS.writeFile('/latch.py', pythonSettings(withLatch(plan), WRITTEN));
  python.runPython(`
import latch
def latch_run():
    told = []
    state = [0]
    one = Board(latch, lambda how, pins: 1300, lambda pin, level: told.append('%d %d %d' % (state[0], pin, level)), lambda text: None)
    for second in range(1, 3720):
        state[0] = second
        if second == 20:
            one.console.obey('test pump 1 3')
        one.second()
    return '|'.join(told)
`);
  const pump = plan.lines[0]?.output.pin.number ?? 0;
  expect(pulsesIn(call('latch_run')().split('|'))).toEqual(LATCH_PULSES(pump));
});

test('an input that has no number in this language is named', () => {
  expect(pythonProblems(plan)).toEqual([]);
  const [first] = plan.inputs;
  if (!first) throw new Error('no input');
  expect(
    pythonProblems({ ...plan, inputs: [{ ...first, pin: { kind: 'input', number: 0 } }] }),
  ).toMatchObject([{ kind: 'no-input-pin', what: 'C2' }]);
  expect(pythonProblems({ ...plan, traits: '8-bit 5 V board' })).toMatchObject([{ kind: 'no-python' }]);
});

test('whatever names hold, the settings are the same but for comments and strings', () => {
  const bare = (text: string) =>
    text.replace(/"[^"\n]*"|#.*$/gm, (found) => (found.startsWith('"') ? '""' : '#'));
  // A display as well: its name and its texts are a person's.
  const shown = withLamps(plan);
  const [signal] = shown.signals;
  if (!signal) throw new Error('no signal');
  const plain = bare(pythonSettings({ ...shown, displays: [display('')], signals: [signal] }, WRITTEN));
  const parts = ['"""', "'''", '"', '\\', '\n', '\r', '#', '%s', '{x}', '🌶', '\u2028'] as const;
  const text = fc.oneof(
    fc.string({ maxLength: 60, unit: 'binary' }),
    fc.array(fc.constantFrom(...parts), { maxLength: 8 }).map((all) => all.join('')),
  );
  fc.assert(
    fc.property(text, text, (garden, line) => {
      const lines = plan.lines.map((one) => ({ ...one, name: line }));
      const named = {
        ...shown,
        garden,
        board: line,
        traits: garden,
        lines,
        displays: [display(line)],
        signals: [{ ...signal, display: garden }],
      };
      expect(bare(pythonSettings(named, WRITTEN))).toBe(plain);
    }),
    { numRuns: 2000, seed: 20_261_128 },
  );
});
