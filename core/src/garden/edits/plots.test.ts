import { describe, expect, test } from 'vitest';
import {
  addLine,
  addPlot,
  editPlot,
  emptyGarden,
  removeLine,
  removePlot,
  renameGarden,
  setBandEdges,
  setStreamName,
  setWaterLine,
  type Parts,
} from './plots.ts';
import { calibrationMismatch, plotParts } from '../bind/plotParts.ts';
import { airAndWater, firstChannel } from './gardenForTests.ts';
import { gardenSchema, type Garden } from '../document/schema.ts';

/** A fixed sequence in place of chance. */
function dice() {
  let at = 0;
  return () => (at = (at + 0.137) % 1);
}
const nowIso = '2026-05-01T08:00:00Z';
const making = () => ({ random: dice(), nowIso });

const parts: Parts = {
  plotName: 'Chilli crate',
  plant: 'chillies',
  probeLabel: 'C2',
  probeKind: 'capacitive stick',
  colour: 'blue',
  depthCm: 7,
  pin: 'input 2',
  streamName: 'c2',
  board: { name: 'Roof board', traits: '3.3 V Wi-Fi board, 12-bit inputs', adcBits: 12, supplyV: 3.3 },
  pump: { flowMlPerS: 12 },
};

const bare = () => emptyGarden('Roof', 'Europe/London', making());
const withPlot = () => addPlot(bare(), parts, dice());

describe('water lines', () => {
  const { garden, plotId } = withPlot();
  const two = addLine(garden, plotId, dice());
  test('another line of a plot only alerts until it gets a program, and has a name of its own', () => {
    expect(two.waterLines.map((one) => one.name)).toEqual(['Chilli crate pump', 'Chilli crate pump 2']);
    expect(two.waterLines[1]).toMatchObject({
      program: { kind: 'alert-only' },
      automatic: false,
      flowMlPerS: 12,
    });
    expect(gardenSchema.safeParse(two).success).toBe(true);
    expect(addLine({ ...garden, waterLines: [] }, plotId, dice()).waterLines).toEqual([]);
  });
  test('taken away, what followed it only alerts', () => {
    const [first, second] = two.waterLines;
    const following = setWaterLine(two, second?.id ?? '', {
      program: { kind: 'follower', leaderId: first?.id ?? '', sharePercent: 100, everyNth: 1 },
    });
    expect(gardenSchema.safeParse(following).success).toBe(true);
    const left = removeLine(following, first?.id ?? '');
    expect(left.waterLines).toMatchObject([{ id: second?.id, program: { kind: 'alert-only' } }]);
    expect(gardenSchema.safeParse(left).success).toBe(true);
    // A plot without a pump loses all its lines.
    expect(
      editPlot(following, plotId, { ...parts, board: { id: first?.boardId ?? '' }, pump: null }, dice())
        .waterLines,
    ).toEqual([]);
  });
});

describe('adding and removing plots', () => {
  test('a new plot comes with probe, channel, board and a pump that is not armed', () => {
    const { garden, plotId } = withPlot();
    expect(gardenSchema.safeParse(garden).success).toBe(true);
    expect(plotParts(garden, plotId)).toMatchObject({
      plot: { name: 'Chilli crate' },
      probe: { label: 'C2' },
      channel: { streamName: 'c2' },
      board: { adcBits: 12 },
      line: { automatic: false },
      calibration: null,
      fit: null,
    });
  });

  test('a second plot can share the board, and needs no pump', () => {
    const first = withPlot().garden;
    const boardId = first.boards[0]?.id ?? '';
    const { garden } = addPlot(
      first,
      { ...parts, plotName: 'Mint', board: { id: boardId }, pump: null },
      dice(),
    );
    expect(garden.boards).toHaveLength(1);
    expect(garden.waterLines).toHaveLength(1);
    expect(gardenSchema.safeParse(garden).success).toBe(true);
  });

  test('removing a plot takes its own things along and leaves the board', () => {
    const { garden, plotId } = withPlot();
    expect(removePlot(garden, plotId)).toMatchObject({
      plots: [],
      probes: [],
      channels: [],
      waterLines: [],
      boards: [{ name: 'Roof board' }],
    });
  });

  test('an unknown plot has no parts', () => {
    expect(plotParts(bare(), 'plot-none')).toBeNull();
  });
});

describe('saying a plot again', () => {
  const { garden, plotId } = withPlot();
  const boardId = garden.boards[0]?.id ?? '';
  const sameBoard = { ...parts, board: { id: boardId } };

  test('names and places change; board, guards and limits stay', () => {
    const { plot, probe, channel, board, line } = plotParts(garden, plotId) ?? {};
    const edited = editPlot(
      garden,
      plotId,
      { ...sameBoard, plotName: 'Pepper crate', probeLabel: 'P1', depthCm: 9, pin: 'input 3' },
      dice(),
    );
    expect(plotParts(edited, plotId)).toMatchObject({
      plot: { ...plot, name: 'Pepper crate' },
      probe: { ...probe, label: 'P1', depthCm: 9 },
      channel: { ...channel, pin: 'input 3' },
      board,
      line,
    });
  });

  test('new traits go to the board in use, under its old id', () => {
    const traits = { name: 'Stern board', traits: '8-bit 5 V board', adcBits: 10, supplyV: 5 };
    const edited = editPlot(garden, plotId, { ...parts, board: traits }, dice());
    expect(edited.boards).toMatchObject([{ id: boardId, ...traits }]);
  });

  test('a pump can go, come back switched off, and give more', () => {
    const without = editPlot(garden, plotId, { ...sameBoard, pump: null }, dice());
    expect(without.waterLines).toEqual([]);
    const armed = setWaterLine(garden, garden.waterLines[0]?.id ?? '', { automatic: true, maxRunS: 7 });
    expect(
      editPlot(armed, plotId, { ...sameBoard, pump: { flowMlPerS: 20 } }, dice()).waterLines,
    ).toMatchObject([{ flowMlPerS: 20, maxRunS: 7, automatic: true }]);
    const again = editPlot(without, plotId, sameBoard, dice());
    expect(again.waterLines).toMatchObject([{ boardId, plotId, automatic: false }]);
    expect(gardenSchema.safeParse(again).success).toBe(true);
  });

  test('an unknown plot is our mistake', () => {
    expect(() => editPlot(garden, 'plot-none', parts, dice())).toThrow(RangeError);
  });
});

test('a garden is renamed with its note', () => {
  expect(renameGarden(bare(), 'Shed', 'north wall')).toEqual({ ...bare(), name: 'Shed', note: 'north wall' });
});

describe('the engine’s settings for a plot', () => {
  const calibrated = () => {
    const { garden, plotId } = withPlot();
    return { garden: airAndWater(garden, 3000, 1000).garden, plotId };
  };
  const partsOf = (garden: Garden, plotId: string) => {
    const found = plotParts(garden, plotId);
    if (!found) throw new Error('no plot');
    return found;
  };

  test('a calibration is void on another supply or another board', () => {
    const { garden, plotId } = calibrated();
    expect(calibrationMismatch(partsOf(garden, plotId))).toBeNull();
    const at5V = { ...garden, boards: garden.boards.map((board) => ({ ...board, supplyV: 5 })) };
    expect(calibrationMismatch(partsOf(at5V, plotId))).toBe('supply');
    const moved = {
      ...garden,
      calibrations: garden.calibrations.map((one) => ({
        ...one,
        place: { ...one.place, boardId: 'other' },
      })),
    };
    expect(calibrationMismatch(partsOf(moved, plotId))).toBe('board');
  });
});

test('small edits change their field and nothing else', () => {
  const { garden, plotId } = withPlot();
  expect(setBandEdges(garden, plotId, [100, 200, 300, 400])).toEqual({
    ...garden,
    plots: [{ ...garden.plots[0], bandEdges: [100, 200, 300, 400] }],
  });
  expect(firstChannel(setStreamName(garden, firstChannel(garden).id, 'A0'))).toEqual({
    ...firstChannel(garden),
    streamName: 'A0',
  });
});
