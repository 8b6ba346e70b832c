/** Rings of lights and small displays, written to by the board's own program in the real interpreter. */
import { expect, test } from 'vitest';
import { displayPages } from '@plain-trowel/core/control/display';
import { pythonFileNames } from '@plain-trowel/core/sketch/files';
import { TextPanel } from '@plain-trowel/core/sketch/textPanelForTests';
import { interpreterForTests, pythonFile } from './boardForTests.ts';

const NAMES = pythonFileNames({
  contacts: [],
  lamps: [],
  displays: [{}] as never,
  bus: null,
  i2c: null,
  network: null,
  sleep: null,
});

test('texts are laid out as the page shows them', async () => {
  const python = await interpreterForTests(() => undefined);
  for (const name of NAMES) python.FS.writeFile(`/${name}`, pythonFile(name));
  python.runPython(`
import sys
sys.path.append('/')
from screen import pages_of
def laid(text):
    values = {"percent": "41.2 % span", "raw": None, "word": "right", "temperature": "21.4 C", "battery": None, "tank": "low"}
    return "|".join(["/".join(page) for page in pages_of(text, values)])
`);
  const laid = python.globals.get('laid') as (text: string) => string;
  const values = {
    percent: '41.2 % span',
    raw: null,
    word: 'right',
    temperature: '21.4 C',
    battery: null,
    tank: 'low',
  };
  for (const text of [
    'Water me: {word}|{percent}',
    '{word} {percent}',
    'LOCKED: look',
    '',
    '|',
    '  blanks   around  {tank}  |{raw} {battery}',
    'averyveryverylongwordthatisbroken in two',
    'sixteen letters. and one more line and more',
    '{nothing} {word}}',
    'a|b|c|{temperature}',
  ])
    expect(laid(text), text).toBe(
      displayPages(text, values)
        .map(({ lines }) => lines.join('/'))
        .join('|'),
    );
});

test('a display is begun once, shows letters twice as high as the font, and is begun anew after it was unplugged', async () => {
  const python = await interpreterForTests(() => undefined);
  for (const name of NAMES) python.FS.writeFile(`/${name}`, pythonFile(name));
  python.runPython(`
import sys
sys.path.append('/')
sent = []
there = [True]
class Line:
    def __init__(self, sda, scl, freq):
        pass
    def writeto(self, address, data, stop=True):
        if not there[0]:
            raise OSError(19)
        sent.append(bytes(data))
class Machine:
    SoftI2C = Line
    def Pin(self, number):
        return number
sys.modules["machine"] = Machine()
from engine import Fields
from shows import Shows
shows = Shows()
one = Fields(sda=21, scl=22, address=60, letters=False)
def draw(text):
    sent.clear()
    taken = shows.draw(one, text.split("/"))
    begun = len([row for row in sent if row[0] == 0 and row[1] == 0xAE])
    letters = [row for row in sent if row[0] == 0x40][-4:]
    return "%s %d %s" % (taken, begun, " ".join(["".join(["%02x" % byte for byte in row[1:9]]) for row in letters]))
def unplug(is_there):
    there[0] = is_there == 1
    return ""
`);
  const call = (name: string) => python.globals.get(name) as (of: string | number) => string;
  // The font's A is 00 7c 7e 0b 0b 7e 7c 00: its lower four rows, then the upper ones, each row twice.
  const upper = [0x00, 0x7c, 0x7e, 0x0b, 0x0b, 0x7e, 0x7c, 0x00].map((one) => twice(one & 15));
  const lower = [0x00, 0x7c, 0x7e, 0x0b, 0x0b, 0x7e, 0x7c, 0x00].map((one) => twice(one >> 4));
  const blank = '00'.repeat(8);
  expect(call('draw')('A/')).toBe(`True 1 ${upper.join('')} ${lower.join('')} ${blank} ${blank}`);
  expect(call('draw')('/A')).toBe(`True 0 ${blank} ${blank} ${upper.join('')} ${lower.join('')}`);
  call('unplug')(0);
  expect(call('draw')('A')).toMatch(/^False/);
  call('unplug')(1);
  expect(call('draw')('A')).toMatch(/^True 1/);
});

test('a text display is begun from whatever it was in the middle of, and shows two lines', async () => {
  const python = await interpreterForTests(() => undefined);
  for (const name of NAMES) python.FS.writeFile(`/${name}`, pythonFile(name));
  python.runPython(`
import sys
import time
sys.path.append('/')
sent = []
there = [True]
class Line:
    def __init__(self, sda, scl, freq):
        pass
    def writeto(self, address, data, stop=True):
        if not there[0]:
            raise OSError(19)
        sent.append(bytes(data))
class Machine:
    SoftI2C = Line
    def Pin(self, number):
        return number
class Time:
    def sleep_ms(self, ms):
        pass
sys.modules["machine"] = Machine()
sys.modules["time"] = Time()
from engine import Fields
from shows import Shows
shows = Shows()
one = Fields(sda=21, scl=22, address=39, letters=True)
def draw(text):
    sent.clear()
    shows.draw(one, text.split("/") if text else [])
    return "".join(["%02x" % byte for row in sent for byte in row])
`);
  const draw = python.globals.get('draw') as (text: string) => string;
  const panel = new TextPanel();
  for (const port of [0x34, 0x30, 0x24, 0x20, 0x44, 0x40]) panel.take(port);
  for (const text of ['Water me: low/', '16.7 % span/and a 2nd line!', '/']) {
    for (const [byte] of draw(text).matchAll(/../g)) panel.take(Number.parseInt(byte, 16));
    expect(panel.text()).toBe(text);
  }
  expect(panel).toMatchObject({ isOn: true, isLit: true, hasTwoLines: true });
});

const twice = (bits: number): string =>
  [0, 1, 2, 3]
    .reduce((sum, at) => sum | (((bits >> at) & 1) * 3 * 4 ** at), 0)
    .toString(16)
    .padStart(2, '0');
