import { expect, test, vi } from 'vitest';
import { marigoldHare } from '@plain-trowel/standins/sample/marigoldHare';
import type { SourceUpdate } from './lineSource.ts';
import { SerialSource } from './serialSource.ts';

/** A port in place of a real one: the test sends bytes, and breaks or closes the stream. */
function fakePort() {
  let feed: ReadableStreamDefaultController<Uint8Array> | null = null;
  const newReadable = () =>
    new ReadableStream<Uint8Array>({ start: (controller) => void (feed = controller) });
  const typed: string[] = [];
  const port = {
    readable: null as ReadableStream<Uint8Array> | null,
    writable: new WritableStream<Uint8Array>({
      write: (bytes) => void typed.push(new TextDecoder().decode(bytes)),
    }),
    opened: 0,
    closed: 0,
    open: vi.fn(),
    close: vi.fn(),
  };
  port.open.mockImplementation(() => {
    port.readable = newReadable();
    return Promise.resolve();
  });
  port.close.mockResolvedValue(undefined);
  return {
    port,
    typed,
    serial: port as unknown as SerialPort,
    send: (text: string) => feed?.enqueue(new TextEncoder().encode(text)),
    breakOnce: () => {
      const broken = feed;
      port.readable = newReadable();
      broken?.error(new DOMException('framing', 'FramingError'));
    },
    pull: () => {
      port.readable = null;
      feed?.error(new DOMException('gone', 'NetworkError'));
    },
  };
}

const GARDEN = marigoldHare(Date.UTC(2026, 4, 1));

const settle = () => new Promise((done) => setTimeout(done, 5));

function started(serial: SerialPort) {
  const updates: SourceUpdate[] = [];
  const source = new SerialSource(serial, 'roof', 9600, 'Roof board', GARDEN);
  source.start((update) => updates.push(update));
  const lines = () =>
    updates.flatMap((update) => (update.kind === 'lines' ? update.lines.map((line) => line.text) : []));
  const statuses = () => updates.flatMap((update) => (update.kind === 'status' ? [update.status] : []));
  return { source, updates, lines, statuses };
}

test('bytes become lines at the speed that was chosen', async () => {
  const { port, serial, send } = fakePort();
  const { source, lines, statuses } = started(serial);
  await settle();
  send('c2=15');
  send('12\r\nc2=1513\r\n');
  await settle();
  expect(port.open).toHaveBeenCalledWith({ baudRate: 9600 });
  expect(lines()).toEqual(['c2=1512', 'c2=1513']);
  expect(statuses()).toEqual(['opening', 'open']);
  await source.stop();
  expect(port.close).toHaveBeenCalledOnce();
  expect(statuses()).toEqual(['opening', 'open']);
});

test('a framing error is passed over, and reading goes on', async () => {
  const { serial, send, breakOnce } = fakePort();
  const { source, lines } = started(serial);
  await settle();
  send('1\n');
  await settle();
  breakOnce();
  await settle();
  send('2\n');
  await settle();
  expect(lines()).toEqual(['1', '2']);
  await source.stop();
});

test('a pulled plug ends the source with a sentence', async () => {
  const { serial, pull } = fakePort();
  const { updates } = started(serial);
  await settle();
  pull();
  await settle();
  expect(updates.at(-1)).toEqual({
    kind: 'status',
    status: 'ended',
    message: 'The board was unplugged. Nothing read so far is lost; plug it in and connect again.',
  });
});

test.each([
  ['NetworkError', /another program or tab holds it/],
  ['UnknownError', /Unplug the board/],
])('a port that does not open (%s) says why', async (name, sentence) => {
  const { port, serial } = fakePort();
  port.open.mockRejectedValue(new DOMException('no', name));
  const { updates } = started(serial);
  await settle();
  const last = updates.at(-1);
  expect(last).toMatchObject({ kind: 'status', status: 'failed' });
  expect(last?.kind === 'status' && last.message).toMatch(sentence);
});

test('a port that goes on offering a stream that is broken has ended', async () => {
  const readable = new ReadableStream<Uint8Array>({
    start: (controller) => controller.error(new DOMException('gone', 'NetworkError')),
  });
  const done = () => Promise.resolve();
  const { statuses } = started({
    readable,
    writable: null,
    open: done,
    close: done,
  } as unknown as SerialPort);
  await settle();
  expect(statuses()).toEqual(['opening', 'open', 'ended']);
});

test('a board that says it runs a program of ours is told the time, asked how its lines stand, and takes orders', async () => {
  const { serial, send, typed } = fakePort();
  const { source, updates } = started(serial);
  await settle();
  send('c2=1512\r\n# soil is dry\r\n');
  await settle();
  expect(typed).toEqual([]);
  expect(source.orders).toBeNull();
  expect(source.can.decides).toBe(false);

  const line = GARDEN.waterLines[0];
  const id = line?.id ?? '';
  send(`# version 3 0123456789ab engine 1\r\n# lines ${id}\r\n`);
  await settle();
  expect(typed[0]).toMatch(/^clock \d{1,5} [0-6]\n$/);
  expect(typed.slice(1)).toEqual(['limits\n', 'all\n']);
  expect(source.can.decides).toBe(true);
  expect(source.boardAt(source.boardId)?.program).toMatchObject({ number: 3, name: '0123456789ab' });

  source.orders?.order({ lineId: id, kind: 'water', volumeMl: 120 });
  source.orders?.order({ lineId: id, kind: 'stop' });
  source.orders?.order({ lineId: 'of another board', kind: 'stop' });
  await settle();
  expect(typed.slice(3)).toEqual(['give 1 120\n', 'stop 1\n']);

  send('# limits 1 start 40.0 dose 90 water on\r\n# started 1 order 13 s at 38.2\r\n');
  send('# stopped 1 dose-done 13 s 120 ml\r\n# line 1 rests dose-done today 120 ml\r\n');
  await settle();
  expect(source.boardAt(source.boardId)?.program.limits[id]).toEqual({
    start: '40.0',
    dose: '90',
    water: 'on',
  });
  const events = updates.flatMap((update) => (update.kind === 'events' ? update.events : []));
  expect(events).toMatchObject([
    { kind: 'pump-started', lineId: id, plotId: line?.plotId, tenths: 382, simulated: false },
    { kind: 'pump-stopped', lineId: id, ranS: 13, volumeMl: 120, author: 'board' },
  ]);
  const answers = updates.findLast((update) => update.kind === 'answers');
  expect(answers?.answers.lines[id]).toMatchObject({ isOn: false, reason: 'dose-done', givenMl: 120 });
  await source.stop();
});
