import { describe, expect, test } from 'vitest';
import { addContact, setContact } from '@plain-trowel/core/garden/edits/contacts';
import type { Contact } from '@plain-trowel/core/garden/document/contactSchema';
import { contactContradictions } from '@plain-trowel/core/garden/bind/contacts';
import { marigoldHare } from '@plain-trowel/standins/sample/marigoldHare';
import { contactSentence, contactState, edgeText } from './contactText.ts';
import { contradictionText } from './contradictionText.ts';

const garden = marigoldHare(Date.UTC(2026, 4, 1));
const plot = garden.plots.find((one) => one.id === 'chilli');
if (!plot) throw new Error('the sample has no chillies');
const SCALE = {
  percentKind: 'volumetric',
  dryCounts: 3000,
  wetCounts: 1000,
  dryPercent: 0,
  wetPercent: 100,
} as const;

const added = (kind: 'permit' | 'light', change: Partial<Contact> = {}) => {
  const withOne = addContact(garden, 'chilli', kind, () => 0.5);
  const id = withOne.contacts.at(-1)?.id ?? '';
  const changed = setContact(withOne, id, change);
  const contact = changed.contacts.at(-1);
  if (!contact) throw new Error('no contact');
  return { garden: changed, contact };
};
const says = (kind: 'permit' | 'light', change: Partial<Contact> = {}) =>
  contactSentence(added(kind, change).contact, plot, SCALE);

describe('what an output will do, in plain words', () => {
  test('a permit contact names both limits and the side on which it fails', () => {
    expect(says('permit')).toBe(
      'When Chilli crate falls below 45.0 % VWC, the other timer may water until Chilli crate has 58.0 % VWC; then it may not, until Chilli crate is as dry as that again. Where nobody can tell, and without current, it forbids.',
    );
    expect(says('permit', { rule: { kind: 'permit', atRest: 'permits' } })).toMatch(
      /it lets the timer water\.$/,
    );
  });
  test('its conditions and limits are told', () => {
    const { conditions } = added('permit').contact;
    expect(
      says('permit', {
        conditions: { ...conditions, noRain: true, noSkip: true, hours: { fromMinute: 300, toMinute: 480 } },
        mostOnMin: 720,
      }),
    ).toContain(
      'again; never more than 12 h at a stretch. Only while it is between 05:00 and 08:00, it does not rain and the skip switch is off.',
    );
  });
  test('a grow light by the clock, by the sun and by its cell', () => {
    expect(says('light')).toBe(
      'Lit from 06:00 to 20:00; never more than 16 h at a stretch and 16 h a day. Where nobody can tell, it is dark.',
    );
    expect(
      says('light', {
        rule: {
          kind: 'light',
          from: { by: 'sunset', minute: -30 },
          to: { by: 'clock', minute: 1260 },
          cell: { darkBelow: 300, brightAbove: 900 },
        },
      }),
    ).toMatch(
      /^Lit from 30 min before sunset to 21:00, once the light cell reads below 300 until it reads above 900;/,
    );
    expect(edgeText({ by: 'sunrise', minute: 90 })).toBe('1 h 30 min after sunrise');
    expect(edgeText({ by: 'sunrise', minute: 0 })).toBe('sunrise');
  });
  test('what it does now', () => {
    const answer = {
      isOn: false,
      isResting: true,
      reason: 'rain-unknown',
      sinceMs: Date.UTC(2026, 4, 1, 6),
      dayS: 0,
    } as const;
    expect(contactState('permit', answer, 'UTC')).toMatch(/^forbids the timer \(at rest\) since 06:00: /);
    expect(
      contactState('light', { ...answer, isOn: true, isResting: false, reason: 'in-hours' }, 'UTC'),
    ).toBe('lit since 06:00: it is within its hours');
  });
});

describe('what in an output contradicts itself', () => {
  const told = (kind: 'permit' | 'light', change: Partial<Contact>) => {
    const { garden: changed, contact } = added(kind, change);
    return contactContradictions(changed, contact).map(contradictionText);
  };
  test('as they are added, nothing does', () => {
    expect(told('permit', {})).toEqual([]);
    expect(told('light', {})).toEqual([]);
  });
  test.each([
    [
      'hours longer than it may be lit',
      { mostOnMin: 600 },
      /Its hours are 14 h long, and it may be on for 10 h at a stretch/,
    ],
    ['the day even less', { dayMaxMin: 300 }, /it may be on for 5 h a day/],
    [
      'no hours at all',
      {
        rule: {
          kind: 'light',
          from: { by: 'clock', minute: 60 },
          to: { by: 'clock', minute: 60 },
          cell: null,
        },
      },
      /begin and end at the same minute/,
    ],
    [
      'a cell that nothing is, and that is crossed',
      {
        rule: {
          kind: 'light',
          from: { by: 'clock', minute: 60 },
          to: { by: 'clock', minute: 120 },
          cell: { darkBelow: 400, brightAbove: 300 },
        },
      },
      /It goes out above 300, and on below 400.*|Nothing in this garden measures light/,
    ],
  ] as const)('%s', (_, change, text) => {
    const all = told('light', change);
    expect(all.length).toBeGreaterThan(0);
    for (const one of all) expect(one).toMatch(text);
  });
  test('the sun without a latitude', () => {
    const { garden: changed, contact } = added('light', {
      rule: {
        kind: 'light',
        from: { by: 'sunset', minute: 0 },
        to: { by: 'clock', minute: 1300 },
        cell: null,
      },
    });
    const nowhere = {
      ...changed,
      plan: { ...changed.plan, supply: { ...changed.plan.supply, latitudeDeg: null } },
    };
    expect(contactContradictions(changed, contact)).toEqual([]);
    expect(contactContradictions(nowhere, contact).map((one) => one.kind)).toEqual(['no-latitude']);
  });
  test('a skip switch that nothing is', () => {
    const { conditions } = added('permit').contact;
    expect(told('permit', { conditions: { ...conditions, noSkip: true } })[0]).toMatch(
      /measures a skip switch/,
    );
  });
});
