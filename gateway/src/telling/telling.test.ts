/** Alerts with no page open: raised by what boards report, kept before they are told, sent until they are taken. */
import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import { openInbox, type Inbox } from '@plain-trowel/standins/inbox/inbox';
import { openGateway, type Gateway } from '../gateway.ts';
import { newFolder } from '../mailbox/mailboxForTests.ts';
import { chilli, Clock, DRY, hareWith, mailTo, publish, RIGHT, until } from './tellingForTests.ts';

const SECRET = 'a secret of both';
let clock: Clock;
let folder: string;
let gateway: Gateway;
let inbox: Inbox;
let seq = 0;
const GARDEN = hareWith().id;

beforeEach(async () => {
  clock = new Clock();
  folder = newFolder();
  inbox = await openInbox(SECRET);
  seq = 0;
  await open();
  await publish(gateway, hareWith());
  await gateway.keys.make(GARDEN, 'roof', clock.ms);
  await gateway.ways.set({ mail: mailTo(inbox.smtpPort), webhook: null, noteAtMinute: null });
  await gateway.teller.step();
});
afterEach(async () => {
  await gateway.close();
  await inbox.close();
});

async function open(): Promise<void> {
  gateway = openGateway(folder, 1e9, clock.now);
  await gateway.teller.step();
}
const again = async () => {
  await gateway.close();
  await open();
};

/** A board reports every ten seconds, and every ten seconds it is looked. */
async function reporting(counts: number, seconds: number): Promise<void> {
  for (let passed = 0; passed < seconds; passed += 10) {
    clock.pass(10);
    await gateway.mailbox.put(GARDEN, chilli((seq += 1), counts), clock.ms);
    await gateway.teller.step();
  }
}
const passing = async (seconds: number) => {
  for (let passed = 0; passed < seconds; passed += 10) {
    clock.pass(10);
    await gateway.teller.step();
  }
};
const mails = async (count: number) => {
  await until(() => inbox.mails.length >= count);
  return inbox.mails.map(({ subject }) => subject);
};

describe('a plot that falls dry while no page is open', () => {
  test('is told by mail after its hold-off, once, with its reading', async () => {
    await reporting(RIGHT, 60);
    await reporting(DRY, 50);
    expect(gateway.outbox.newest(9)).toEqual([]);
    await reporting(DRY, 120);
    expect(await mails(1)).toEqual(['The Marigold Hare: Chilli crate: too dry']);
    const [mail] = inbox.mails;
    expect(mail?.to).toBe('hare@garden.invalid');
    // (2934 − 2800) / (2934 − 1144) of the span
    expect(mail?.text).toContain('now dry, 7.5 % span');
    await reporting(DRY, 60);
    expect(inbox.mails).toHaveLength(1);
  });
  test('is told to be cleared once it is watered', async () => {
    await reporting(DRY, 120);
    await reporting(RIGHT, 20);
    expect((await mails(2))[1]).toContain('cleared: too dry');
  });
  test('that was seen on a page is not told again; one that was not, is', async () => {
    await publish(gateway, hareWith({ repeatS: 300 }));
    await reporting(DRY, 420);
    expect((await mails(2))[1]).toContain('still too dry');
    expect(await gateway.teller.seen(GARDEN, 'dry chilli', null)).toBe(true);
    await reporting(DRY, 900);
    expect(inbox.mails).toHaveLength(2);
    expect(await gateway.teller.seen(GARDEN, 'dry nobody', null)).toBe(false);
  });
  test('in quiet hours waits for the morning', async () => {
    await publish(gateway, hareWith({ quiet: { fromMinute: 11 * 60, toMinute: 12 * 60 + 10 } }));
    await reporting(DRY, 500);
    expect(gateway.outbox.newest(9)).toEqual([]);
    await reporting(DRY, 200);
    expect(await mails(1)).toHaveLength(1);
  });
  test('keeps its hold-off and what was told through a restart', async () => {
    await reporting(DRY, 40);
    await again();
    await reporting(DRY, 40);
    expect(await mails(1)).toHaveLength(1);
    await again();
    await reporting(DRY, 120);
    expect(inbox.mails).toHaveLength(1);
    expect(gateway.teller.toldOf(GARDEN)).toHaveLength(1);
  });
});

describe('a board that falls silent', () => {
  test('is told after its quarter of an hour and its hold-off', async () => {
    await reporting(RIGHT, 60);
    await passing(900 + 1800 + 30);
    expect(await mails(1)).toEqual([expect.stringContaining('Roof board: the board is silent')]);
  });
  test('also while the gateway was off: what it said last is read again', async () => {
    await reporting(RIGHT, 60);
    await gateway.close();
    clock.pass(86_400);
    await open();
    await passing(1900);
    expect(await mails(1)).toEqual([expect.stringContaining('Roof board: the board is silent')]);
  });
});

describe('a letter that is not taken', () => {
  test('is tried again until it is, also after a restart, and comes once', async () => {
    inbox.behave('busy');
    await reporting(DRY, 90);
    await until(() => (gateway.outbox.newest(1)[0]?.tries ?? 0) > 0);
    expect(gateway.outbox.newest(1)[0]).toMatchObject({ state: 'waiting' });
    expect(gateway.outbox.newest(1)[0]?.why).toContain('try later');
    await again();
    inbox.behave('take');
    await passing(60);
    expect(await mails(1)).toHaveLength(1);
    await until(() => gateway.outbox.newest(1)[0]?.state === 'sent');
    expect(inbox.mails).toHaveLength(1);
  });
  test('that is refused for good is not tried again, and is seen as not sent', async () => {
    inbox.behave('refuse');
    await reporting(DRY, 90);
    await until(() => gateway.outbox.newest(1)[0]?.state === 'dead');
    expect(gateway.outbox.unsent(GARDEN, clock.ms)).toEqual([{ way: 'mail', count: 1 }]);
    inbox.behave('take');
    await gateway.outbox.again(gateway.outbox.newest(1)[0]?.id ?? '', clock.ms);
    await gateway.teller.step();
    expect(await mails(1)).toHaveLength(1);
    expect(gateway.outbox.unsent(GARDEN, clock.ms)).toEqual([]);
  });
  test('is given up after a day, and told in the note', async () => {
    await inbox.close();
    await reporting(DRY, 90);
    await until(() => (gateway.outbox.newest(1)[0]?.tries ?? 0) > 0);
    clock.pass(86_500);
    await gateway.teller.step();
    await until(() => gateway.outbox.newest(9).some(({ state }) => state === 'dead'));
    expect(gateway.outbox.unsent(GARDEN, clock.ms).map(({ way }) => way)).toEqual(['mail']);
    inbox = await openInbox(SECRET);
  });
  test('by a way that was switched off meanwhile', async () => {
    inbox.behave('busy');
    await reporting(DRY, 90);
    await until(() => (gateway.outbox.newest(1)[0]?.tries ?? 0) > 0);
    await gateway.ways.set({ mail: null, webhook: null, noteAtMinute: null });
    await passing(60);
    await until(() => gateway.outbox.newest(1)[0]?.state === 'dead');
    expect(gateway.outbox.newest(1)[0]?.why).toBe('telling by mail is switched off');
  });
});

describe('a webhook', () => {
  beforeEach(async () => {
    await gateway.ways.set({
      mail: null,
      webhook: { url: `${inbox.address}/hook`, secret: SECRET },
      noteAtMinute: null,
    });
  });
  test('gets the alert as facts, signed so that its receiver knows it', async () => {
    await reporting(DRY, 90);
    await until(() => inbox.hooks.length > 0);
    const [hook] = inbox.hooks;
    expect(hook?.isSigned).toBe(true);
    expect(JSON.parse(hook?.body ?? '')).toMatchObject({
      kind: 'alert',
      garden: GARDEN,
      subject: 'The Marigold Hare: Chilli crate: too dry',
      facts: { alerts: [{ alert: 'dry', phase: 'raised', plotId: 'chilli', simulated: false }] },
    });
  });
  test('with another secret is not taken for ours', async () => {
    await gateway.ways.set({
      mail: null,
      webhook: { url: `${inbox.address}/hook`, secret: 'other' },
      noteAtMinute: null,
    });
    await reporting(DRY, 90);
    await until(() => inbox.hooks.length > 0);
    expect(inbox.hooks[0]?.isSigned).toBe(false);
  });
});

describe('the note of the day', () => {
  const at = (hour: number) =>
    gateway.ways.set({ mail: mailTo(inbox.smtpPort), webhook: null, noteAtMinute: hour * 60 });
  test('comes at its minute in the garden’s own time, once a day', async () => {
    await at(13);
    await reporting(RIGHT, 3590);
    expect(inbox.mails).toHaveLength(0);
    await reporting(RIGHT, 60);
    const [subject] = await mails(1);
    expect(subject).toContain('The Marigold Hare:');
    expect(inbox.mails[0]?.text).toContain('Chilli crate: right, 52.2 % span');
    expect(inbox.mails[0]?.text).toContain('Roof board: heard');
    // Its stern board has no key here: nothing is said of what it reads.
    expect(inbox.mails[0]?.text).toContain('Lemon barrel:');
    await reporting(RIGHT, 600);
    expect(inbox.mails).toHaveLength(1);
    clock.pass(86_400 - 1200);
    await reporting(RIGHT, 1300);
    expect(await mails(2)).toHaveLength(2);
  });
  test('that was asked for after its hour comes the next day', async () => {
    await at(8);
    await reporting(RIGHT, 600);
    expect(gateway.outbox.newest(9)).toEqual([]);
    clock.pass(20 * 3600 - 900);
    await reporting(RIGHT, 1200);
    expect(await mails(1)).toHaveLength(1);
  });
  test('comes late where the gateway was off at its minute, once boards have reported again', async () => {
    await at(13);
    await reporting(RIGHT, 3700);
    await mails(1);
    await gateway.close();
    clock.pass(86_400 + 3600);
    await open();
    await reporting(RIGHT, 60);
    expect(inbox.mails).toHaveLength(1);
    await reporting(RIGHT, 120);
    await mails(2);
    expect(inbox.mails[1]?.text).toContain('Chilli crate: right');
  });
});

test('a garden without a key of a board is not watched, and one that has lost them is no more', async () => {
  expect(gateway.teller.watched).toEqual([GARDEN]);
  await gateway.keys.revoke(GARDEN, 'roof');
  await gateway.teller.step();
  expect(gateway.teller.watched).toEqual([]);
});

test('an alert of a real board is not called a stand-in’s because another board is one', async () => {
  await gateway.keys.make(GARDEN, 'stern', clock.ms, true);
  await gateway.mailbox.put(GARDEN, chilli(1, 600, { board: 'stern' }), clock.ms, true);
  await reporting(DRY, 90);
  expect((await mails(1))[0]).not.toContain('stand-in');
});
