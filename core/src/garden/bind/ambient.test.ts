import { describe, expect, test } from 'vitest';
import { ambientChoices, ambientOf, type Place } from './ambient.ts';
import { NOTHING_CHOSEN } from '../document/waterSchema.ts';
import { firstChannel, onePlot } from '../edits/gardenForTests.ts';
import type { Channel, Garden } from '../document/schema.ts';

const base = onePlot({});
const [probe] = base.probes;
if (!probe) throw new Error('no probe');
const soil = firstChannel(base);
const { plotId } = probe;

const channel = (id: string, change: Partial<Channel>): Channel => ({
  ...soil,
  id,
  probeId: null,
  quantity: 'air temperature',
  calibrationId: null,
  ...change,
});
const withChannels = (...channels: Channel[]): Garden => ({
  ...base,
  probes: [probe, { ...probe, id: 'elsewhere', plotId: 'other' }],
  channels: [soil, ...channels],
});
const here: Place = { boardId: soil.boardId, plotId, chosen: NOTHING_CHOSEN };

describe('the air about a line', () => {
  const mine = channel('in-plot', { probeId: probe.id });
  const other = channel('in-other-plot', { probeId: 'elsewhere' });
  const onBoard = channel('on-board', {});
  const farBoard = channel('far', { boardId: 'far' });

  test.each([
    ['a probe in the plot comes first', [farBoard, other, onBoard, mine], 'in-plot'],
    ['then what the line’s own board measures, in no other plot', [farBoard, other, onBoard], 'on-board'],
    ['then the only one in the garden', [farBoard], 'far'],
    ['of two far ones neither', [farBoard, other], null],
    ['of two on the board neither', [onBoard, channel('second', {})], null],
    ['nothing measures it', [], null],
  ])('%s', (_, channels, id) => {
    expect(ambientOf(withChannels(...channels), here, 'airTenthsC')?.id ?? null).toBe(id);
  });

  test('what a person has chosen goes before all, as long as it measures that', () => {
    const garden = withChannels(farBoard, onBoard, mine, channel('sun', { quantity: 'light' }));
    const chosen = (airId: string): Place => ({ ...here, chosen: { ...NOTHING_CHOSEN, airId } });
    expect(ambientOf(garden, chosen('far'), 'airTenthsC')?.id).toBe('far');
    expect(ambientOf(garden, chosen('sun'), 'airTenthsC')).toBeNull();
    expect(ambientOf(garden, chosen('gone'), 'airTenthsC')).toBeNull();
  });

  test('where several could be meant, they are offered', () => {
    const garden = withChannels(farBoard, other);
    expect(ambientChoices(garden, here, 'airTenthsC').map((one) => one.id)).toEqual(['far', 'in-other-plot']);
  });
});

test('another board’s battery is not this one’s, and another plot’s soil is not this one’s', () => {
  const battery = channel('bat', { quantity: 'battery voltage', boardId: 'far' });
  const warm = channel('t', { quantity: 'soil temperature', probeId: 'elsewhere' });
  const garden = withChannels(battery, warm);
  expect(ambientOf(garden, here, 'battery')).toBeNull();
  expect(ambientOf(garden, { ...here, boardId: 'far' }, 'battery')?.id).toBe('bat');
  expect(ambientOf(garden, here, 'soilTenthsC')).toBeNull();
  expect(ambientOf(garden, { ...here, plotId: 'other' }, 'soilTenthsC')?.id).toBe('t');
});
