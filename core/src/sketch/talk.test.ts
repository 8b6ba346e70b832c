import fc from 'fast-check';
import { expect, test } from 'vitest';
import { readTalk } from './talk.ts';

test.each([
  ['# version 12 0123456789ab engine 1', { kind: 'version', number: 12, name: '0123456789ab' }],
  ['# lines l1-a roof_2', { kind: 'lines', ids: ['l1-a', 'roof_2'] }],
  ['# lines', { kind: 'lines', ids: [] }],
  [
    '# started 1 below-start 30 s at 38.2',
    {
      kind: 'event',
      line: 1,
      plannedS: 30,
      told: { kind: 'started', reason: 'below-start', tenths: 382 },
    },
  ],
  [
    '# started 2 order 3 s',
    { kind: 'event', line: 2, plannedS: 3, told: { kind: 'started', reason: 'order', tenths: null } },
  ],
  [
    '# stopped 1 dose-done 10 s 120 ml',
    {
      kind: 'event',
      line: 1,
      plannedS: null,
      told: { kind: 'stopped', reason: 'dose-done', ranS: 10, volumeMl: 120 },
    },
  ],
  [
    '# refused 1 tank-low',
    { kind: 'event', line: 1, plannedS: null, told: { kind: 'refused', reason: 'tank-low' } },
  ],
  [
    '# line 1 rests locked today 600 ml locked',
    { kind: 'line', line: 1, runs: false, reason: 'locked', todayMl: 600, locked: true },
  ],
  [
    '# line 2 runs below-start today 0 ml',
    { kind: 'line', line: 2, runs: true, reason: 'below-start', todayMl: 0, locked: false },
  ],
  [
    '# limits 1 start 40.0 stop 60.0 dose 90 water on',
    { kind: 'limits', line: 1, values: { start: '40.0', stop: '60.0', dose: '90', water: 'on' } },
  ],
  ['# lamp 2 too-dry', { kind: 'lamp', lamp: 2, state: 'too-dry' }],
  [
    '# limits lamp 1 dry 45.0 wet 100.1',
    { kind: 'lamp-limits', lamp: 1, values: { dry: '45.0', wet: '100.1' } },
  ],
  ['# contacts galley-light permit_2', { kind: 'contacts', ids: ['galley-light', 'permit_2'] }],
  [
    '# contact 1 is on in-hours today 3600 s',
    { kind: 'contact', contact: 1, isOn: true, isResting: false, reason: 'in-hours', todayS: 3600 },
  ],
  [
    '# contact 2 rests off sun-unknown today 0 s',
    { kind: 'contact', contact: 2, isOn: false, isResting: true, reason: 'sun-unknown', todayS: 0 },
  ],
  ['# contact 1 on dark', { kind: 'contact-event', contact: 1, told: { kind: 'on', reason: 'dark' } }],
  [
    '# contact 1 off max-on 36000 s',
    { kind: 'contact-event', contact: 1, told: { kind: 'off', reason: 'max-on', onS: 36_000 } },
  ],
  ['# taken 1 start 35.5', { kind: 'taken', what: '1 start 35.5' }],
  ['# percent b1.moisture 40.5', { kind: 'percent', name: 'b1.moisture', tenths: 405 }],
  ['# percent c2 unknown', { kind: 'percent', name: 'c2', tenths: null }],
  ['# taken', { kind: 'taken', what: '' }],
  ['# no: no such line', { kind: 'refused', why: 'no such line' }],
] as const)('"%s" says', (line, said) => expect(readTalk(line)).toEqual(said));

test.each([
  'c2=1512 l1=2240',
  '# stopped 1 because 10 s 120 ml',
  '# stopped 1 dose-done 9999999999 s 1 ml',
  '# line 1 walks below-start today 0 ml',
  '# version one 0123456789ab engine 1',
  '# soil is dry',
  '# lines a!',
  'x # lines a',
  '# stopped 1 dose-done 10 s 120 ml and more',
  '#',
  '',
])('"%s" says nothing', (line) => expect(readTalk(line)).toBeNull());

test('no line whatever makes it throw', () => {
  fc.assert(
    fc.property(fc.string({ maxLength: 200 }), (text) => {
      readTalk(text);
      readTalk(`# ${text}`);
    }),
    { numRuns: 5000, seed: 1 },
  );
});

test('what it goes by of contacts and probes', () => {
  expect(readTalk('# limits contact 2 switch off')).toEqual({
    kind: 'contact-limits',
    contact: 2,
    values: { switch: 'off' },
  });
  expect(readTalk('# limits contact 1 start 40.0 stop 60.5 switch on')).toMatchObject({
    values: { start: '40.0', stop: '60.5', switch: 'on' },
  });
  expect(readTalk('# limits probe 1 table 1100:1000,2900:0 soil -2000000000:2845 leap 5.0')).toEqual({
    kind: 'probe-limits',
    probe: 1,
    values: { table: '1100:1000,2900:0', soil: '-2000000000:2845', leap: '5.0' },
  });
  for (const bad of [
    'table 1100:1000 soil 1:2',
    'table 1:2,3:4',
    'table 1:2,3:4 soil 1',
    'table 1:2,3:4 soil 1:2',
    'table 1:2,3:4 soil 1:2 leap 5',
    'soil 1:2',
  ])
    expect(readTalk(`# limits probe 1 ${bad}`)).toBeNull();
});
