/** The board's program in C++: written, compiled against a board of ours, and played beside the engine of the page. */
import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { REASON_CODES } from '../control/codes.ts';
import type { Reason } from '../control/contract/reasons.ts';
import { NOT_THE_ENGINES } from '../control/vectors/runScript.ts';
import { EMPTY_NETLIST } from '../wiring/netlist.ts';
import { planBoard } from './boardPlan.ts';
import type { BoardPlan, SketchInput } from './plan.ts';
import { cppSize, cppSketch } from './cpp.ts';
import { cppProblems, programBytes, ramBytes } from './fits.ts';
import { cppFileNames } from './files.ts';
import { pinOfName, pinPairOfName } from './pins.ts';
import {
  CONTACT_TALK,
  contactSwitchesOfPage,
  contactTold,
  everyProgram,
  limitsLines,
  REFUSED_PROBES,
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
import { forComment, forString } from './safeText.ts';
import { oneStickOnePump } from './gardenForTests.ts';
import { compiled, CPP, planOf, played, WRITTEN } from '../../../engine/cpp/host/compiled.ts';

/** On and off of a pin, as "second level". */
const switchesOf = (lines: readonly string[], pin: number) =>
  lines.filter((line) => !line.startsWith('>') && line.split(' ')[1] === String(pin));

/** An input on pin 4. */
function thermometer({ inputs: [first] }: BoardPlan): SketchInput {
  if (!first) throw new Error('no input');
  return { ...first, label: 'T1', pin: { kind: 'pin', number: 4 } };
}

describe('one stick, one pump', () => {
  const plan = planOf();
  const { program, said } = compiled(plan, '-O1');
  // Analog inputs of the board on the computer are numbered from 200 on.
  const stick = 200 + (plan.inputs[0]?.pin.number ?? 0);
  const pump = plan.lines[0]?.output.pin.number ?? 0;

  test('compiles without a warning', () => expect(said).toBe(''));

  test('outputs are off before anything else, and stay off while the soil is wet', () => {
    const lines = played(program, [`a ${stick} 1300`, 'w 4000']);
    expect(lines[0]).toBe(`0 ${pump} 0`);
    expect(switchesOf(lines, pump)).toHaveLength(1);
  });

  test('what it prints is what the page reads: the names of the channels', () => {
    const lines = played(program, [`a ${stick} 1512`, 'w 2']);
    expect(lines.at(-1)).toMatch(/(^> |\s)c2=1512(\s|$)/);
  });

  test('over a day it waters at the very seconds at which the engine of the page does', () => {
    const rows = Array.from({ length: 40_000 }, (_, at) => [`a ${stick} ${rawAt(at + 1)}`, 'w 1']).flat();
    const asked = [
      `0 ${pump} 0`,
      ...switchesOfPage(plan, 40_000).map((one) => one.replace(' ', ` ${pump} `)),
    ];
    expect(asked.length).toBeGreaterThan(6);
    expect(switchesOf(played(program, rows), pump)).toEqual(asked);
  });

  test('and so does a board with a tank, a light cell, and a second line that goes by the clock', () => {
    const rich = richPlan({ ...plan, traits: '5 V board' });
    const board = compiled(rich, '-O1');
    expect(board.said).toBe('');
    const toS = 30_000;
    const rows = Array.from({ length: toS }, (_, at) => [
      ...richRawsAt(at + 1).map((raw, place) => `a ${stick + place} ${raw}`),
      'w 1',
    ]).flat();
    const pins = rich.lines.map((one) => one.output.pin.number);
    const said = played(board.program, ['c clock 0 0', ...rows]).flatMap((line) => {
      const [second, pin, level] = line.split(' ');
      return line.startsWith('>') || second === '0'
        ? []
        : [`${second} ${pins.indexOf(Number(pin))} ${level}`];
    });
    const asked = richSwitchesOfPage(rich, toS);
    expect(asked.filter((one) => one.endsWith('0 1')).length).toBeGreaterThan(2);
    expect(asked.filter((one) => one.endsWith('1 1')).length).toBeGreaterThan(1);
    expect(said).toEqual(asked);
    expect(cppSketch(rich, WRITTEN)).toContain('// A line above it\n// another\n');
  });

  test('and so do contacts: a permit by three probes together and their air, a light by sun, clock and cell', () => {
    const held = withContacts({ ...plan, traits: '5 V board' });
    const board = compiled(held, '-O1');
    expect(board.said).toBe('');
    const toS = 30_000;
    const rows = Array.from({ length: toS }, (_, at) => {
      const { raws, sun } = contactTold(at + 1);
      return [
        ...raws.map((raw, place) => `a ${stick + place} ${raw}`),
        ...(sun ? [`c sun ${sun.riseS} ${sun.setS}`] : []),
        'w 1',
      ];
    }).flat();
    const pins = held.contacts.map((one) => one.output.pin.number);
    const said = played(board.program, ['c clock 0 0', ...rows]).flatMap((line) => {
      const [second, pin, level] = line.split(' ');
      const at = pins.indexOf(Number(pin));
      return line.startsWith('>') || second === '0' || at < 0 ? [] : [`${second} ${at} ${level}`];
    });
    const asked = contactSwitchesOfPage(held, toS);
    for (const contact of [0, 1])
      expect(asked.filter((one) => one.endsWith(`${contact} 1`)).length).toBeGreaterThan(2);
    expect(said).toEqual(asked);
  });

  test('a probe that is fed only to be read is fed in time, read once, and starved; what is read of it decides', () => {
    const fed = {
      ...plan,
      inputs: plan.inputs.map((one) => ({ ...one, power: 0 })),
      powers: [{ pin: { kind: 'pin', number: 8 } as const, waitS: 2, everyS: 30 }],
    };
    const board = compiled(fed, '-O1');
    expect(board.said).toBe('');
    const lines = played(board.program, [`a ${stick} 1512`, 'w 70', 'c raw', 'c all', 'w 1']);
    expect(switchesOf(lines, 8)).toEqual(['0 8 0', '1 8 1', '3 8 0', '31 8 1', '33 8 0', '61 8 1', '63 8 0']);
    expect(lines.filter((line) => line === '> c2=1512')).toHaveLength(3);
    expect(lines.some((line) => line.startsWith('> # percent c2 '))).toBe(true);
  });

  test('a 1-Wire thermometer gives hundredths of a degree; damaged answers and none are left out', () => {
    const warm = {
      ...plan,
      inputs: [
        ...plan.inputs,
        { ...thermometer(plan), channelId: 't1', name: 't1', reads: 'one-wire' as const },
      ],
    };
    const board = compiled(warm, '-O1');
    expect(board.said).toBe('');
    const lines = played(board.program, [
      `a ${stick} 1512`,
      't 4 343',
      'w 4',
      't 4 -9',
      'w 4',
      't 4 400 1',
      'w 4',
    ]);
    const said = lines.filter((line) => line.includes('c2=')).map((line) => line.slice(2));
    // 343 sixteenths are 21.4375 degrees, -9 are -0.5625. It measures for the next look.
    expect(said).toEqual([
      'c2=1512 t1=21.43',
      'c2=1512 t1=21.43',
      'c2=1512 t1=-0.57',
      'c2=1512 t1=-0.57',
      'c2=1512',
      'c2=1512',
    ]);
    const without = played(board.program, [`a ${stick} 1512`, 'w 4']);
    expect(without.filter((line) => line.includes('t1='))).toEqual([]);
  });

  test('a voltage is that at its pin: counts of its reference', () => {
    const battery = {
      ...plan,
      inputs: [
        ...plan.inputs,
        {
          ...thermometer(plan),
          channelId: 'bat',
          name: 'bat',
          reads: 'volts' as const,
          pin: { kind: 'input', number: 3 } as const,
        },
      ],
    };
    const board = compiled(battery);
    expect(board.said).toBe('');
    // 3900 of 4095 of the 5 V that its entry in the wiring names.
    const lines = played(board.program, [`a ${stick} 1512`, 'a 203 3900', 'w 2']);
    expect(lines.at(-1)).toBe('> c2=1512 bat=4.761');
  });

  describe('lamps', () => {
    // No line waters meanwhile.
    const shown = withLamps({
      ...plan,
      traits: '5 V board',
      engine: { ...plan.engine, lines: plan.engine.lines.map((one) => ({ ...one, enabled: false })) },
    });
    const board = compiled(shown, '-O1');
    /** Levels of lamp, red, green, blue after these rows. */
    const levelsAfter = (...rows: readonly string[]) => {
      const levels = new Map<string, string>();
      for (const line of played(board.program, rows)) {
        const [, pin = '', level = ''] = line.split(' ');
        if (!line.startsWith('>')) levels.set(pin, level);
      }
      return ['9', '10', '11', '12'].map((pin) => Number(levels.get(pin)));
    };
    test('compile without a warning', () => expect(board.said).toBe(''));
    // By the calibration of the test garden 2900 counts are dry and 1100 wet.
    test.each([
      ['green, and the single one dark, while all is well', 1900, [0, 0, 1, 0]],
      ['red, and the single one lit, below "right"', 2600, [1, 1, 0, 0]],
      ['blue where it is flooded', 1300, [1, 0, 0, 1]],
    ])('%s', (_, raw, levels) => expect(levelsAfter(`a ${stick} ${raw}`, 'w 700')).toEqual(levels));
    test('white, slowly blinking, when its plug is out', () => {
      const lines = played(board.program, [`a ${stick} 1900`, 'w 5', `a ${stick} 4095`, 'w 20']);
      const red = switchesOf(lines, 10);
      expect(red.length).toBeGreaterThan(12);
      expect(switchesOf(lines, 12)).toHaveLength(red.length);
    });
    test('before the first reading nothing is well: white, and the single one lit', () => {
      const blind = compiled({ ...shown, watches: shown.watches.map((one) => ({ ...one, isBlind: true })) });
      const last = new Map(
        played(blind.program, [`a ${stick} 1900`, 'w 5'])
          .filter((line) => !line.startsWith('>'))
          .map((line) => [line.split(' ')[1], line.split(' ')[2]]),
      );
      expect(['9', '10', '11', '12'].map((pin) => last.get(pin))).toEqual(['1', '1', '1', '1']);
    });
    test('the buzzer sounds when a state begins, and again each minute', () => {
      const lines = played(board.program, [`a ${stick} 2600`, 'W 150']);
      expect(switchesOf(lines, 13).filter((one) => one.endsWith(' 1'))).toHaveLength(3);
    });
    test('the words that it goes by can be set, and nothing beyond them', () => {
      const lines = played(board.program, [
        `a ${stick} 1900`,
        'w 5',
        'c set lamp 1 dry 70.5',
        'c set lamp 1 wet 100.1',
        'c set lamp 2 dry 10',
        'c set lamp 1 damp 10',
        'c set lamp 1 dry 101',
        'c limits',
        'w 2',
        'c why',
      ]);
      expect(lines).toContain('> # taken lamp 1 dry 70.5');
      expect(lines).toContain('> # limits lamp 1 dry 70.5 wet 100.1');
      expect(lines.filter((line) => line.startsWith('> # no: '))).toEqual([
        '> # no: no such lamp',
        '> # no: dry or wet',
        '> # no: a percent from 0 to 100 with at most one decimal',
      ]);
      expect(lines.at(-1)).toBe('> # lamp 1 too-dry');
    });
    test('"test lamp" shows each colour for a second; "why" names the state', () => {
      const lines = played(board.program, [`a ${stick} 1900`, 'w 4', 'c test lamp', 'w 6', 'c why']);
      expect(switchesOf(lines, 10).some((one) => one.endsWith(' 1'))).toBe(true);
      expect(switchesOf(lines, 12).some((one) => one.endsWith(' 1'))).toBe(true);
      expect(lines).toContain('> # lamp 1 content');
    });
  });

  test('the console: help, reasons, an order that the guards hold, and rubbish', () => {
    const lines = played(program, [
      `a ${stick} 1300`,
      'w 3',
      'c ?',
      'c why',
      'c test pump 1 3',
      'w 10',
      'c test pump 9 3',
      'c hello',
      'c test pump 1 99999999999999',
      'w 1',
    ]);
    expect(lines).toContain('> # ? raw all why limits version');
    expect(lines.some((line) => /^> # line 1 rests [a-z-]+ today 0 ml/.test(line))).toBe(true);
    expect(switchesOf(lines, pump)).toEqual([`0 ${pump} 0`, `4 ${pump} 1`, `7 ${pump} 0`]);
    expect(lines).toContain('> # no: not understood - ? for help');
    expect(lines.filter((line) => line === '> # no: test pump LINE SECONDS')).toHaveLength(2);
  });

  test('a servo is held by its pulses: shut from the start, open for as long as it is watered', () => {
    const servo = {
      ...plan,
      lines: plan.lines.map((one) => ({
        ...one,
        output: { ...one.output, pulses: { offUs: 1100, onUs: 1900 } },
      })),
    };
    const board = compiled(withLamps(servo));
    expect(board.said).toBe('');
    const lines = played(board.program, [`s ${pump}`, `a ${stick} 1300`, 'w 3', 'c test pump 1 3', 'w 10']);
    expect(switchesOf(lines, pump)).toEqual([
      `0 ${pump} 0`,
      `1 ${pump} 1100`,
      `5 ${pump} 1900`,
      `8 ${pump} 1100`,
    ]);
  });

  test('a latching valve gets pulses: shut at the start and once more, opened, shut after its run and once more, then each hour', () => {
    const board = compiled(withLatch(plan), '-O1');
    expect(board.said).toBe('');
    const lines = played(board.program, [`a ${stick} 1300`, 'w 19', 'c test pump 1 3', 'w 3700']);
    expect(pulsesIn(lines.filter((line) => !line.startsWith('>')))).toEqual(LATCH_PULSES(pump));
  });

  test('a line that is skipped waters nothing by itself until then; an order by hand goes on', () => {
    const large = compiled({ ...plan, traits: '3.3 V Wi-Fi board' }, '-O1');
    expect(large.said).toBe('');
    const dry = `a ${stick} 2800`;
    const first = switchesOf(played(large.program, [dry, 'w 2000']), pump)[1] ?? '';
    const startS = Number(first.split(' ')[0]);
    expect(startS).toBeGreaterThan(1);
    const lines = played(large.program, [
      dry,
      'w 5',
      'c skip 1 3000',
      'w 995',
      'c why',
      'c give 1 50',
      'w 1',
      'c skip 1 2764801',
      'c skip 2 60',
      'c skip 1',
      'w 3000',
      'c why',
    ]);
    const [byHand, bySelf] = switchesOf(lines, pump).filter((one) => one.endsWith(' 1'));
    expect(byHand).toBe(`1001 ${pump} 1`);
    expect(Number(bySelf?.split(' ')[0])).toBeGreaterThanOrEqual(3005);
    expect(lines).toContain('> # skip 1 2005 s');
    expect(lines.filter((line) => line === '> # skip 1 2005 s')).toHaveLength(1);
    expect(lines.filter((line) => line.startsWith('> # no: skip LINE SECONDS'))).toHaveLength(3);
  });
  test('an 8-bit board has no room for skips, and says that it does not know the word', () =>
    expect(played(program, ['c skip 1 60'])).toContain('> # no: not understood - ? for help'));

  test('a relay that is on when low is high from the first moment', () => {
    const low = {
      ...plan,
      lines: plan.lines.map((one) => ({ ...one, output: { ...one.output, activeLow: true } })),
    };
    const board = compiled(low);
    expect(board.said).toBe('');
    expect(played(board.program, [`a ${stick} 1300`, 'w 5'])[0]).toBe(`0 ${pump} 1`);
  });

  test.each([
    ['no pump', { lines: [], engine: { ...plan.engine, lines: [] }, around: [] }],
    [
      'nothing but a pump',
      {
        inputs: [],
        sources: [],
        engine: {
          ...plan.engine,
          sensors: [],
          lines: plan.engine.lines.map((one) => ({ ...one, sensor: null })),
        },
      },
    ],
  ])('a board with %s compiles as well', (_, change) => {
    const board = compiled({ ...plan, ...change });
    expect(board.said).toBe('');
    expect(
      played(board.program, ['w 100', 'c why', 'c raw', 'c test pump 1 3', 'w 5']).length,
    ).toBeGreaterThan(0);
  });

  test('limits and dose are taken at once, and only within the guards that stand in the program', () => {
    const said = (...typed: readonly string[]) =>
      played(program, [`a ${stick} 2500`, ...typed.map((one) => `c ${one}`)]).filter((line) =>
        /^> # (no|taken|limits)/.test(line),
      );
    expect(said('limits')).toEqual(['> # limits 1 start 40.0 stop 60.0 dose 90 water on']);
    expect(said('set 1 start 35.5', 'set 1 stop 70', 'set 1 dose 120', 'set 1 water off', 'limits')).toEqual([
      '> # taken 1 start 35.5',
      '> # taken 1 stop 70',
      '> # taken 1 dose 120',
      '> # taken 1 water off',
      '> # limits 1 start 35.5 stop 70.0 dose 120 water off',
    ]);
    const refused: readonly (readonly [string, string])[] = [
      ['set 1 start 59.5', 'at least 1 below stop'],
      ['set 1 stop 30', 'at least 1 below stop'],
      ['set 1 start 100.1', 'percent'],
      ['set 1 start -5', 'percent'],
      ['set 1 start 4,5', 'percent'],
      ['set 1 start 5.55', 'percent'],
      ['set 1 dose 0', 'whole number'],
      ['set 1 dose 60x', 'whole number'],
      ['set 1 dose 99999', 'maximum'],
      ['set 1 max_run 600', 'no such setting'],
      ['set 1 startle 40', 'no such setting'],
      ['set 2 start 40', 'set LINE'],
      ['set 1 water maybe', 'on or off'],
      ['set', 'set LINE'],
    ];
    for (const [typed, why] of refused) {
      const [first, limits] = said(typed, 'limits');
      expect(first).toMatch(/^> # no: /);
      expect(first).toContain(why);
      expect(limits).toBe('> # limits 1 start 40.0 stop 60.0 dose 90 water on');
    }
  });

  test('on a board with room the calibration of a probe is taken whole or not at all, and holds at once', () => {
    const large = compiled({ ...plan, traits: '5 V board' });
    expect(large.said).toBe('');
    const said = (...typed: readonly string[]) =>
      played(large.program, [
        `a ${stick} 2500`,
        'w 2',
        ...typed.map((one) => `c ${one}`),
        'w 2',
        'c all',
      ]).filter((line) => /^> # (no|taken|limits probe|percent)/.test(line));
    const [sensor] = plan.engine.sensors;
    const soil = `${sensor?.soilLowRaw}:${sensor?.soilHighRaw}`;
    const leap = ((sensor?.leapTenths ?? 0) / 10).toFixed(1);
    expect(said('limits')).toEqual([
      `> # limits probe 1 table 1100:1000,2900:0 soil ${soil} leap ${leap}`,
      '> # percent c2 22.3',
    ]);
    expect(
      said(
        'set probe 1 table 1000:1000,2000:500,3000:0',
        'set probe 1 soil 900:3100',
        'set probe 1 leap 12.5',
        'limits',
      ),
    ).toEqual([
      '> # taken probe 1 table 1000:1000,2000:500,3000:0',
      '> # taken probe 1 soil 900:3100',
      '> # taken probe 1 leap 12.5',
      '> # limits probe 1 table 1000:1000,2000:500,3000:0 soil 900:3100 leap 12.5',
      '> # percent c2 25.0',
    ]);
    for (const bad of REFUSED_PROBES) {
      const [first, limits] = said(`set probe ${bad}`, 'limits');
      expect(first, bad).toMatch(/^> # no: /);
      expect(limits).toBe(`> # limits probe 1 table 1100:1000,2900:0 soil ${soil} leap ${leap}`);
    }
    // A small board has no room for it.
    expect(played(program, ['c set probe 1 soil 1:2'])).toContain('> # no: set LINE NAME VALUE');
  });

  test('limits of a permit contact and whether a contact switches are taken', () => {
    const board = compiled(withContacts({ ...plan, traits: '5 V board' }));
    const lines = played(
      board.program,
      CONTACT_TALK.map(([typed]) => `c ${typed}`),
    );
    const said = lines.filter((line) => /^> # (no|taken|limits contact)/.test(line));
    expect(said).toEqual(CONTACT_TALK.flatMap(([, answers]) => answers.map((one) => `> ${one}`)));
  });

  test('what can be set of each kind of program is what the page takes for it', () => {
    const all = everyProgram(plan);
    const board = compiled(all);
    expect(board.said).toBe('');
    const lines = played(board.program, ['w 1', 'c limits']).filter((line) => line.includes('limits'));
    expect(lines).toEqual(limitsLines(all.engine.lines.map(settingsOf)).map((line) => `> ${line}`));
  });

  test('it says a percent only of what it has read, and "unknown" where a reading gives none', () => {
    const percents = (rows: readonly string[]) =>
      played(program, rows).filter((line) => line.includes('percent'));
    expect(percents(['c all'])).toEqual([]);
    expect(percents([`a ${stick} 2900`, 'w 1', 'c all'])).toEqual(['> # percent c2 unknown']);
    // Halfway between 2900 counts in air and 1100 in water.
    expect(percents([`a ${stick} 2000`, 'w 1', 'c all'])).toEqual(['> # percent c2 50.0']);
  });

  test('what starts and stops is told, with seconds and ml', () => {
    const lines = played(program, [`a ${stick} 1300`, 'w 3', 'c give 1 90', 'w 15']);
    expect(lines.some((line) => /^> # started 1 order 10 s at \d+\.\d$/.test(line))).toBe(true);
    expect(lines).toContain('> # stopped 1 dose-done 10 s 90 ml');
  });

  describe('through a reboot it keeps', () => {
    const again = (rows: readonly string[], memory: string) => played(program, rows, memory);
    const todayOf = (lines: readonly string[]) =>
      Number(/today (\d+) ml/.exec(lines.findLast((line) => line.includes(' today ')) ?? '')?.[1]);
    const fresh = () => join(mkdtempSync(join(tmpdir(), 'trowel-')), 'memory');

    test('the water of the day, rounded up by a hundredth of the daily maximum an hour at most', () => {
      const memory = fresh();
      const before = todayOf(again([`a ${stick} 1300`, 'w 3', 'c give 1 90', 'w 20', 'c why'], memory));
      expect(before).toBe(90);
      const after = todayOf(again([`a ${stick} 1300`, 'w 3', 'c why'], memory));
      expect(after).toBeGreaterThanOrEqual(90);
      expect(after).toBeLessThanOrEqual(90 + Math.ceil((plan.engine.lines[0]?.guards.dailyMaxMl ?? 0) / 100));
      // It does not grow by being kept again and again.
      let last = after;
      for (let turn = 0; turn < 20; turn += 1)
        last = todayOf(again([`a ${stick} 1300`, 'w 1', 'c why'], memory));
      expect(last).toBe(after);
    });

    test('a run that the reboot cut off, whole', () => {
      const memory = fresh();
      again([`a ${stick} 1300`, 'w 3', 'c give 1 90', 'w 4'], memory);
      expect(todayOf(again([`a ${stick} 1300`, 'w 1', 'c why'], memory))).toBeGreaterThanOrEqual(90);
    });

    test('whatever a hundred orders wrote: the newest record counts, also past number 255', () => {
      const memory = fresh();
      const orders = Array.from({ length: 140 }, () => ['c give 1 9', 'w 3']).flat();
      const before = todayOf(again([`a ${stick} 1300`, 'w 3', ...orders, 'c why'], memory));
      expect(todayOf(again([`a ${stick} 1300`, 'w 1', 'c why'], memory))).toBeGreaterThanOrEqual(before);
    });

    test('a record that was cut off gives way to the one before; where none can be read, the day counts as used', () => {
      const memory = fresh();
      again([`a ${stick} 1300`, 'w 3', 'c give 1 90', 'w 20', 'c give 1 90', 'w 20'], memory);
      const bytes = readFileSync(memory);
      const record = 2 + 30 + 2;
      const torn = Buffer.from(bytes);
      // Four records were written, into places 1 to 4: the last of them is damaged.
      torn[4 * record + 10] = 77;
      writeFileSync(memory, torn);
      expect(todayOf(again([`a ${stick} 1300`, 'w 1', 'c why'], memory))).toBeGreaterThanOrEqual(180);
      for (let slot = 0; slot < 16; slot += 1) torn[slot * record + 10] = 78;
      writeFileSync(memory, torn);
      const used = again([`a ${stick} 2500`, 'w 4000', 'c why'], memory);
      expect(switchesOf(used, pump)).toHaveLength(1);
      expect(todayOf(used)).toBe(plan.engine.lines[0]?.guards.dailyMaxMl);
    });

    test('nothing of a program with other lines, and nothing where a board has no such memory', () => {
      const memory = fresh();
      again([`a ${stick} 1300`, 'w 3', 'c give 1 90', 'w 20'], memory);
      const other = compiled({ ...plan, lines: plan.lines.map((one) => ({ ...one, id: 'another' })) });
      expect(todayOf(played(other.program, [`a ${stick} 1300`, 'w 1', 'c why'], memory))).toBe(0);
      const none = compiled(plan, '-DNO_EEPROM');
      expect(none.said).toBe('');
      expect(todayOf(played(none.program, [`a ${stick} 1300`, 'w 1', 'c why'], memory))).toBe(0);
    });
  });

  test('a board of twelve bits is asked for them: at first it would give a quarter of the counts', () => {
    expect(played(program, [`a ${stick} 3001`, 'w 2']).at(-1)).toContain('c2=3001');
    expect(cppSize({ ...plan, adcBits: 10 })).not.toContain('TROWEL_ADC_BITS');
  });

  test('a distance is what sound needs there and back, and what sends no echo is left out', () => {
    const tank = {
      channelId: 'tank',
      name: 'tank',
      label: 'Rain tank, mm',
      reads: 'distance',
      pin: { kind: 'pin', number: 26 },
      second: { kind: 'pin', number: 27 },
    } as const;
    const board = compiled({ ...plan, inputs: [...plan.inputs, tank] });
    expect(board.said).toBe('');
    // 500 mm there and back at 343 m/s: 2915 microseconds.
    expect(played(board.program, [`a ${stick} 1300`, 'a 27 2915', 'w 2']).at(-1)).toContain('tank=499');
    const none = played(board.program, [`a ${stick} 1300`, 'a 27 40000', 'w 4']);
    expect(none.at(-1)).toMatch(/c2=1300$/);
  });

  test('a contact whose wire is off reads open, and does not float', () => {
    const contact = {
      ...plan.inputs[0],
      name: 'rain',
      label: 'Rain',
      reads: 'digital',
      pin: { kind: 'pin', number: 9 },
      channelId: 'rain',
    } as const;
    const board = compiled({ ...plan, inputs: [...plan.inputs, contact] });
    const said = played(board.program, [`a ${stick} 1300`, 'w 12']).filter((line) => line.includes('rain='));
    expect(said.length).toBeGreaterThan(4);
    for (const line of said) expect(line).toContain('rain=1');
  });

  test('a danger that somebody has accepted stands at the top, whatever its words', () => {
    const text = cppSketch(plan, WRITTEN, 'I know:\n#error */ the fuse comes on Monday');
    expect(text).toContain(
      '// THE WIRING HAS A DANGER. It was written all the same: I know: #error * / the fuse comes on Monday.',
    );
    expect(cppSketch(plan, WRITTEN)).not.toContain('DANGER');
  });

  test('only types of stated width', () => {
    const files = cppFileNames(withLamps(withContacts(plan))).map((name) =>
      readFileSync(join(CPP, name), 'utf8'),
    );
    const text = [cppSketch(plan, WRITTEN), ...files]
      .join('\n')
      .replace(/\/\/.*$/gm, '')
      .replace(/"[^"]*"/g, '""');
    expect(text).not.toMatch(/\b(int|long|short|unsigned|float|double)\b/);
  });
});

test('the numbers and names of reasons are those of the contract, in either language', () => {
  const [engine, board] = ['engine.h', 'board.h'].map((name) => readFileSync(join(CPP, name), 'utf8'));
  const python = ['engine.py', 'reasons.py'].map((name) =>
    readFileSync(join(CPP, '../python', name), 'utf8'),
  );
  for (const [reason, code] of Object.entries(REASON_CODES)) {
    if (NOT_THE_ENGINES.includes(reason as Reason)) continue;
    const name = reason === 'order' ? 'BY_ORDER' : reason.toUpperCase().replace(/-/g, '_');
    expect(engine).toMatch(new RegExp(`\\b${name} = ${code}\\b`));
    expect(board).toContain(`case ${code}: TELL.print(F("${reason}"));`);
    expect(python[0]).toMatch(new RegExp(`^${name} = ${code}$`, 'm'));
    expect(python[1]).toContain(`${code}: "${reason}",`);
  }
});

describe('what is missing is named, and nothing is written half', () => {
  const { garden, boardId } = oneStickOnePump();
  const problems = (change: typeof garden) => {
    const planned = planBoard(change, boardId);
    return planned.ok ? [] : planned.problems.map(({ kind, what }) => `${kind}: ${what}`);
  };
  test('no wiring: nobody knows the pin of the pump', () =>
    expect(problems({ ...garden, wiring: EMPTY_NETLIST })).toEqual(['no-output-pin: Roof pump']));
  test('a stick whose input has no number', () =>
    expect(
      problems({
        ...garden,
        channels: garden.channels.map((one) => ({ ...one, pin: 'the left one' })),
      }),
    ).toEqual(['no-input-pin: C2']));
  test('no calibration', () =>
    expect(
      problems({ ...garden, channels: garden.channels.map((one) => ({ ...one, calibrationId: null })) }),
    ).toContain('not-calibrated: Roof pump'));
  test('a pin that a stick and the pump share', () =>
    expect(problems({ ...garden, channels: garden.channels.map((one) => ({ ...one, pin: 'P5' })) })).toEqual([
      'pin-taken-twice: C2 and Roof pump, both on P5',
    ]));
  test('settings that contradict themselves', () =>
    expect(
      problems({ ...garden, waterLines: garden.waterLines.map((one) => ({ ...one, dailyMaxMl: 50 })) }),
    ).toContain('contradiction: Roof pump'));
});

test.each([
  ['P35', { kind: 'pin', number: 35 }],
  ['IN0', { kind: 'input', number: 0 }],
  ['input 2', { kind: 'input', number: 2 }],
  ['a7', { kind: 'input', number: 7 }],
  ['P999', null],
  ['the left one', null],
  ['P3; evil()', null],
] as const)('the pin "%s"', (name, pin) => expect(pinOfName(name)).toEqual(pin));

test.each([
  ['P26 P27', [26, 27]],
  ['trigger P26, echo P27', [26, 27]],
  ['P26/P27', [26, 27]],
  ['P26', null],
  ['P26 P27 P28', null],
  ['', null],
] as const)('the two pins "%s"', (names, numbers) =>
  expect(pinPairOfName(names)?.map(({ number }) => number) ?? null).toEqual(numbers),
);

describe('what a small board can hold', () => {
  const plan = planOf();
  test('is reckoned as a compiler that leaves no gaps lays it out', () => {
    // The sizes of the structures themselves, asked of the compiler.
    const folder = mkdtempSync(join(tmpdir(), 'trowel-'));
    const source = join(folder, 'size.cpp');
    writeFileSync(
      source,
      `#pragma pack(1)
${cppSize(plan)}
#include "engine.h"
#include <stdio.h>
using namespace trowel;
int main() { printf("%zu", sizeof(Config) + sizeof(State) + 2 * sizeof(Input) + sizeof(Answer) + TROWEL_LINES * sizeof(Remembered)); }`,
    );
    const program = join(folder, 'size');
    expect(
      spawnSync('g++', ['-std=gnu++11', `-I${CPP}`, '-o', program, source], { encoding: 'utf8' }).stderr,
    ).toBe('');
    const bytes = Number(spawnSync(program, { encoding: 'utf8' }).stdout);
    const names = 'c2'.length + 'Roof pump'.length + 12;
    // What its conditions go by, five places of four bytes, and where its sensor is read from, three.
    expect(Math.abs(ramBytes(plan) - (bytes + names + 23 + 440))).toBeLessThan(20);
  });
  test('a distance, a second input, a second line and a second kind take program memory; two lines are too many', () => {
    const [input] = plan.inputs;
    const [line] = plan.lines;
    if (!input || !line) throw new Error('no line');
    const base = programBytes(plan);
    expect(base).toBe(29_800);
    expect(programBytes({ ...plan, inputs: [input, input] })).toBe(base + 450);
    expect(programBytes({ ...plan, inputs: [{ ...input, reads: 'distance' }, input] })).toBe(base + 950);
    expect(programBytes({ ...plan, lines: [line, line] })).toBe(base + 1220);
    expect(programBytes(withLamps(plan))).toBe(base + 2400);
    expect(cppProblems({ ...plan, lines: [line, line] })).toMatchObject([{ kind: 'too-large' }]);
    const far = plan.engine.lines.map((one) => ({
      ...one,
      guards: { ...one.guards, dailyMaxMl: 1_000_001 },
    }));
    expect(cppProblems({ ...plan, engine: { ...plan.engine, lines: far } })).toMatchObject([
      { kind: 'too-large' },
    ]);
  });
  test('one line fits, four do not, and a larger board holds them', () => {
    const [line] = plan.engine.lines;
    const [sensor] = plan.engine.sensors;
    if (!line || !sensor) throw new Error('no line');
    const four = {
      ...plan,
      engine: {
        ...plan.engine,
        lines: Array.from({ length: 4 }, () => line),
        sensors: Array.from({ length: 4 }, () => sensor),
      },
    };
    expect(cppProblems(plan)).toEqual([]);
    expect(cppProblems(four)).toMatchObject([{ kind: 'too-large' }]);
    expect(cppProblems({ ...four, traits: '3.3 V Wi-Fi board' })).toEqual([]);
  });
});

describe('names from people', () => {
  const nasty = [
    '*/ evil(); /*',
    '"; evil(); "',
    'a\\',
    'line\nbreak',
    '🌶 chilli',
    '"""',
    "'''",
    '??/',
    '\u2028',
    'x'.repeat(300),
  ];
  test('end no comment, no string and no line', () => {
    for (const name of nasty) {
      expect(forComment(name)).not.toMatch(/[\n\r\\]|\*\/|"""|\?\?/);
      expect(forString(name)).toMatch(/^[ !#-[\]-~]{0,40}$/);
    }
  });
  test('whatever they hold, the program compiles to the same but for its strings', () => {
    const text = fc.oneof(
      fc.string({ maxLength: 60, unit: 'binary' }),
      fc.constantFrom(...nasty),
      fc
        .array(fc.constantFrom('*/', '//', '"', '\\', '\n', '"""', '??/', '#define x', '%n', '🌶'), {
          maxLength: 8,
        })
        .map((parts) => parts.join('')),
    );
    const bare = (program: string) =>
      program.replace(/"[^"\n]*"|\/\/.*$/gm, (found) => (found.startsWith('"') ? '""' : '//'));
    const plan = planOf();
    const plain = bare(cppSketch(plan, WRITTEN));
    fc.assert(
      fc.property(text, text, text, (garden, line, label) => {
        const named = {
          ...plan,
          garden,
          board: label,
          traits: line,
          inputs: plan.inputs.map((one) => ({ ...one, label })),
          lines: plan.lines.map((one) => ({ ...one, name: line })),
        };
        // Every line of it is the same outside of comments and strings: nothing broke out of them.
        expect(bare(cppSketch(named, WRITTEN))).toBe(plain);
      }),
      { numRuns: 2000, seed: 20_261_128 },
    );
  });
  test('and a compiler takes the worst of them', () => {
    const plan = planOf();
    for (const name of nasty.slice(0, 4)) {
      const { said } = compiled(
        {
          ...plan,
          garden: name,
          board: name,
          traits: name,
          lines: plan.lines.map((one) => ({ ...one, name })),
        },
        '-fsyntax-only',
      );
      expect(said).toBe('');
    }
  });
});
