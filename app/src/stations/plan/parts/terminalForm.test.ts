import { expect, test } from 'vitest';
import { BUILT_IN } from '@plain-trowel/core/catalogue/catalogue';
import { freshTerminal, NUMBER_FIELDS, PICK_FIELDS, TERMINAL_TYPES } from './terminalForm.ts';

test.each(TERMINAL_TYPES)('a new terminal of type %s passes the catalogue’s schema', (type) => {
  expect(freshTerminal(type, 't1')).toMatchObject({ type, id: 't1' });
});

test('the form asks for every figure that built-in terminals carry', () => {
  const left = new Set([
    'type',
    'id',
    'name',
    'caps',
    'follows',
    'adcGroup',
    'lostWithRadio',
    'strap',
    'serial',
    'highAtBoot',
  ]);
  for (const terminal of BUILT_IN.flatMap((entry) => entry.terminals)) {
    const asked = [...NUMBER_FIELDS[terminal.type], ...PICK_FIELDS[terminal.type]].map((field) => field.key);
    for (const key of Object.keys(terminal).filter((one) => !left.has(one)))
      expect(asked, terminal.type).toContain(key);
  }
});
