/** Every change that can be made to a garden, with arguments drawn at random: some that a form would give, some that only a fault could. */
import { BUILT_IN } from '../../catalogue/catalogue.ts';
import { standingOf } from '../bind/standing.ts';
import { STANDING } from '../../wiring/netlist.ts';
import { BUS_SPEEDS } from '../../bus/timing.ts';
import { BUILT_IN_MAPS } from '../../bus/registers.ts';
import { CONDITIONS, METHOD_IDS } from '../../calibration/conditions.ts';
import { QUANTITIES } from '../../quantity/quantities.ts';
import { addPart, connect, removePart } from '../../wiring/edit.ts';
import * as bench from './bench.ts';
import { SOIL_KINDS } from '../../soils/soilKinds.ts';
import * as calibrations from './calibrations.ts';
import { applyCure } from './cures.ts';
import { suggestClaims } from '../bind/claims.ts';
import { catalogueOf } from './plan.ts';
import * as edit from './plots.ts';
import { CONTEXT, captureOf, MINT } from './gardenForTests.ts';
import { fillFromWiring, layOutGarden } from './layOutGarden.ts';
import { newProgram } from './newProgram.ts';
import * as plan from './plan.ts';
import { TEST_STEPS } from '../document/probeSchema.ts';
import { ANALOG_KINDS, PROBE_KINDS } from '../../quantity/probeKind.ts';
import * as reservoirs from './reservoirs.ts';
import { PLOT_KINDS, type Garden, type WaterLine } from '../document/schema.ts';
import * as trials from './trials.ts';
import { PROGRAM_KINDS } from '../../control/programs/programs.ts';
import { DECIDED_BY } from '../../control/host/combined.ts';
import { candidatesOf } from '../bind/decided.ts';
import * as contacts from './contacts.ts';
import { copyRules } from './copyRules.ts';

/** What an edit may draw from: a seeded sequence, numbers and texts. */
export type Draw = {
  readonly random: () => number;
  /** A number for a field with these bounds; a wild draw does not keep to them. */
  readonly number: (least: number, most: number) => number;
  readonly whole: (least: number, most: number) => number;
  readonly text: (most: number) => string;
};

type Edit = (garden: Garden, draw: Draw) => Garden;

const pick = <T>(list: readonly T[], { random }: Draw): T | undefined =>
  list[Math.floor(random() * list.length)];
const idOf = (list: readonly { id: string }[], draw: Draw): string => pick(list, draw)?.id ?? 'none';
const making = (draw: Draw) => ({ random: draw.random, nowIso: '2026-05-01T10:00:00Z' });

const withLine = (garden: Garden, draw: Draw, change: (line: WaterLine) => Garden): Garden => {
  const line = pick(garden.waterLines, draw);
  return line ? change(line) : garden;
};

/** By the name of the function that it goes through. */
export const EDITS: Readonly<Record<string, Edit>> = {
  addPlot: (garden, draw) =>
    edit.addPlot(
      garden,
      {
        ...MINT,
        plotName: draw.text(60) || 'x',
        plant: draw.text(400),
        depthCm: draw.number(0, 300),
        board:
          garden.boards.length > 0 && draw.random() < 0.7
            ? { id: idOf(garden.boards, draw) }
            : {
                name: draw.text(60) || 'b',
                traits: '',
                adcBits: draw.whole(8, 24),
                supplyV: draw.number(1, 30),
              },
        pump: draw.random() < 0.6 ? { flowMlPerS: draw.number(0.1, 1000) } : null,
      },
      draw.random,
    ).garden,
  addBarePlot: (garden, draw) =>
    edit.addBarePlot(
      garden,
      { name: draw.text(60) || 'x', plant: draw.text(400), kind: pick(PLOT_KINDS, draw) ?? null },
      draw.random,
    ).garden,
  giveProbe: (garden, draw) => {
    const [plot, board] = [pick(garden.plots, draw), pick(garden.boards, draw)];
    return plot && board
      ? edit.giveProbe(
          garden,
          plot.id,
          {
            ...MINT,
            probeKind: pick(PROBE_KINDS, draw) ?? 'thermistor',
            board: { id: board.id },
            pump: null,
          },
          draw.random,
        )
      : garden;
  },
  namePlot: (garden, draw) =>
    edit.namePlot(garden, idOf(garden.plots, draw), {
      plotName: draw.text(60) || 'x',
      plant: draw.text(400),
    }),
  layOutGarden: (garden, draw) => {
    const which = () => (draw.random() < 0.5 ? 'garden' : 'plan');
    return layOutGarden(garden, { board: which(), probe: which() }, draw.random).garden;
  },
  fillFromWiring: (garden, draw) => fillFromWiring(garden, draw.random),
  editPlot: (garden, draw) => {
    const plot = pick(garden.plots, draw);
    const board = pick(garden.boards, draw);
    return plot && board
      ? edit.editPlot(
          garden,
          plot.id,
          { ...MINT, plotName: draw.text(60) || 'x', board: { id: board.id }, pump: null },
          draw.random,
        )
      : garden;
  },
  renameGarden: (garden, draw) => edit.renameGarden(garden, draw.text(60) || 'x', draw.text(400)),
  removePlot: (garden, draw) => edit.removePlot(garden, idOf(garden.plots, draw)),
  setLimits: (garden, draw) => {
    const startTenths = draw.whole(0, 900);
    return edit.setLimits(garden, idOf(garden.plots, draw), {
      startTenths,
      stopTenths: startTenths + draw.whole(10, 100),
    });
  },
  setLimit: (garden, draw) => {
    const plot = pick(garden.plots, draw);
    if (!plot) return garden;
    const { startTenths, stopTenths } = plot.limits;
    return draw.whole(0, 1) === 0
      ? edit.setLimit(garden, plot.id, 'start', draw.whole(0, stopTenths - 10))
      : edit.setLimit(garden, plot.id, 'stop', Math.min(1000, startTenths + draw.whole(10, 100)));
  },
  setBandEdges: (garden, draw) => {
    const dry = draw.whole(20, 100);
    return edit.setBandEdges(garden, idOf(garden.plots, draw), [dry, dry + 20, dry + 200, dry + 300]);
  },
  setWaterLine: (garden, draw) =>
    withLine(garden, draw, (line) =>
      edit.setWaterLine(garden, line.id, {
        name: draw.text(60) || 'x',
        flowMlPerS: draw.number(0.1, 1000),
        maxRunS: draw.whole(1, 3600),
        dailyMaxMl: draw.whole(1, 1_000_000),
        trialNote: draw.text(400),
        conditions: { ...line.conditions, darkBelow: draw.number(-1e6, 1e6) },
        around: { ...line.around, airId: pick(garden.channels, draw)?.id ?? null },
        cups: {
          areaCm2: draw.number(1, 5000),
          minutes: draw.number(0.1, 600),
          volumesMl: Array.from({ length: Math.max(0, Math.min(200, draw.whole(0, 100))) }, () =>
            draw.number(0, 1e5),
          ),
        },
      }),
    ),
  newProgram: (garden, draw) =>
    withLine(garden, draw, (line) => {
      const program = newProgram(pick(PROGRAM_KINDS, draw) ?? 'alert-only', line, garden);
      return program ? edit.setWaterLine(garden, line.id, { program }) : garden;
    }),
  addLine: (garden, draw) => edit.addLine(garden, idOf(garden.plots, draw), draw.random),
  removeLine: (garden, draw) => edit.removeLine(garden, idOf(garden.waterLines, draw)),
  setPlot: (garden, draw) =>
    edit.setPlot(garden, idOf(garden.plots, draw), {
      cableM: draw.number(0, 1000),
      size: { kind: 'bed', areaM2: draw.number(0.01, 10_000) },
      warmth: { soilLowC: draw.number(-40, 80), soilHighC: null, airLowC: null, airHighC: null },
    }),
  setStreamName: (garden, draw) => edit.setStreamName(garden, idOf(garden.channels, draw), draw.text(60)),
  claimStreams: (garden, draw) => {
    const board = pick(garden.boards, draw);
    const names = ['soil', 't1', 'bat', 'tank', draw.text(60) || 'x'];
    const unclaimed = names.map((name) => ({
      boardId: board?.id ?? '',
      name,
      last: draw.number(-10, 5000),
      unit: null,
    }));
    if (!board) return garden;
    const claims = suggestClaims(garden, unclaimed, new Set(names), idOf(garden.plots, draw));
    return bench.claimStreams(
      garden,
      claims.map((claim, at) => ({ boardId: board.id, name: names[at] ?? '', claim })),
      pick(PROBE_KINDS, draw) ?? 'capacitive stick',
      draw.random,
    );
  },
  setBoardWatch: (garden, draw) =>
    bench.setBoardWatch(garden, idOf(garden.boards, draw), {
      batteryLowV: draw.number(1, 60),
      darkBelow: draw.number(0, 1e6),
      isLithium: draw.random() < 0.5,
    }),
  setBoardReads: (garden, draw) =>
    bench.setBoardReads(garden, idOf(garden.boards, draw), () => ({
      comma: draw.random() < 0.5 ? 'decimal' : 'border',
    })),
  mapStream: (garden, draw) => {
    const plot = pick(garden.plots, draw);
    const board = pick(garden.boards, draw);
    if (!plot || !board) return garden;
    const quantity = pick(QUANTITIES, draw) ?? 'moisture';
    return bench.mapStream(
      garden,
      { boardId: board.id, name: draw.text(60) },
      draw.random() < 0.5
        ? { kind: 'board', label: draw.text(60), quantity }
        : {
            kind: 'new probe',
            plotId: plot.id,
            label: draw.text(60) || 'p',
            probeKind: pick(ANALOG_KINDS, draw) ?? 'capacitive stick',
            colour: 'none',
            depthCm: draw.number(0, 300),
            quantity,
          },
      draw.random,
    );
  },
  removeChannel: (garden, draw) => bench.removeChannel(garden, idOf(garden.channels, draw)),
  setChannelPin: (garden, draw) => bench.setChannelPin(garden, idOf(garden.channels, draw), draw.text(60)),
  setCorrection: (garden, draw) =>
    bench.setCorrection(garden, idOf(garden.channels, draw), {
      kind: 'offset',
      offset: draw.number(-1000, 1000),
      madeAt: '2026-05-01T10:00:00Z',
      against: draw.text(100),
    }),
  setFirstTest: (garden, draw) =>
    bench.setFirstTest(garden, idOf(garden.probes, draw), pick(TEST_STEPS, draw) ?? 'air', {
      rawCounts: draw.number(0, 4095),
      noiseCounts: draw.number(0, 50),
      takenAt: '2026-05-01T10:00:00Z',
      simulated: false,
    }),
  setLabelProved: (garden, draw) =>
    bench.setLabelProved(garden, idOf(garden.probes, draw), '2026-05-01T10:00:00Z'),
  setWarmUp: (garden, draw) =>
    bench.setWarmUp(garden, idOf(garden.probes, draw), {
      waitS: draw.number(0, 3600),
      runs: draw.whole(1, 1000),
      measuredAt: '2026-05-01T10:00:00Z',
    }),
  swapStreams: (garden, draw) =>
    garden.channels.length > 1
      ? bench.swapStreams(garden, idOf(garden.channels, draw), idOf(garden.channels, draw))
      : garden,
  setRegisterMap: (garden, draw) => {
    const map = pick(BUILT_IN_MAPS, draw);
    return map
      ? bench.setRegisterMap(garden, { ...map, id: `map-${draw.whole(0, 99)}`, name: draw.text(60) || 'x' })
      : garden;
  },
  removeRegisterMap: (garden, draw) => bench.removeRegisterMap(garden, idOf(garden.registerMaps, draw)),
  setBus: (garden, draw) =>
    bench.setBus(garden, idOf(garden.probes, draw), {
      address: draw.whole(1, 247),
      mapId: 'map-1',
      baud: pick(BUS_SPEEDS, draw) ?? 9600,
    }),
  setBusSpeed: (garden, draw) => bench.setBusSpeed(garden, pick(BUS_SPEEDS, draw) ?? 9600),
  addBusProbe: (garden, draw) => {
    const [plot, board, map] = [
      pick(garden.plots, draw),
      pick(garden.boards, draw),
      pick(BUILT_IN_MAPS, draw),
    ];
    return plot && board && map
      ? bench.addBusProbe(
          garden,
          {
            plotId: plot.id,
            boardId: board.id,
            label: draw.text(60) || 'B',
            colour: 'none',
            depthCm: draw.number(0, 300),
            address: draw.whole(1, 247),
            baud: pick(BUS_SPEEDS, draw) ?? 9600,
            map,
          },
          draw.random,
        )
      : garden;
  },
  startRun: (garden, draw) =>
    garden.channels.length > 0
      ? calibrations.startRun(
          garden,
          idOf(garden.channels, draw),
          pick(METHOD_IDS, draw) ?? 'air-water',
          making(draw),
        )
      : garden,
  giveUpRun: (garden, draw) => calibrations.giveUpRun(garden, pick(garden.runs, draw)?.channelId ?? ''),
  setRunInput: (garden, draw) =>
    calibrations.setRunInput(
      garden,
      pick(garden.runs, draw)?.channelId ?? '',
      'dryMassG',
      draw.number(0, 1e6),
    ),
  setRunConversion: (garden, draw) =>
    calibrations.setRunConversion(garden, pick(garden.runs, draw)?.channelId ?? '', {
      to: 'volumetric',
      soil: { bulkDensity: draw.number(0.02, 2.6), capacityVwc: draw.number(0, 100), wiltingVwc: null },
    }),
  addCapture: (garden, draw) => {
    const run = pick(garden.runs, draw);
    const board = pick(garden.boards, draw);
    if (!run || !board) return garden;
    return calibrations.addCapture(
      garden,
      run.channelId,
      {
        condition: pick(CONDITIONS, draw) ?? 'air',
        typed: draw.number(0, 1000),
        felt: null,
        temperatureC: draw.number(-40, 100),
        capture: captureOf(draw.number(0, 4095), { boardId: board.id, supplyV: draw.number(1, 30) }),
      },
      draw.random() < 0.6 ? idOf(run.points, draw) : null,
      draw.random,
    );
  },
  setPointUsed: (garden, draw) => {
    const run = pick(garden.runs, draw);
    return calibrations.setPointUsed(garden, run?.channelId ?? '', idOf(run?.points ?? [], draw), false);
  },
  takeBackCapture: (garden, draw) => {
    const run = pick(garden.runs, draw);
    return calibrations.takeBackCapture(garden, run?.channelId ?? '', idOf(run?.points ?? [], draw));
  },
  exchangePoints: (garden, draw) => {
    const run = pick(garden.runs, draw);
    const points = run?.points ?? [];
    return calibrations.exchangePoints(garden, run?.channelId ?? '', idOf(points, draw), idOf(points, draw));
  },
  applyCure: (garden, draw) => {
    const run = pick(garden.runs, draw);
    const point = pick(run?.points ?? [], draw);
    if (!run || !point) return garden;
    return applyCure(garden, run.channelId, {
      kind: 'take-back',
      pointId: point.id,
      at: draw.whole(0, 3),
      condition: point.condition,
      rawCounts: 0,
    });
  },
  reopenCalibration: (garden, draw) =>
    calibrations.reopenCalibration(garden, idOf(garden.calibrations, draw), making(draw)),
  finishRun: (garden, draw) => {
    const done = calibrations.finishRun(
      garden,
      pick(garden.runs, draw)?.channelId ?? '',
      CONTEXT,
      { kind: 'line', who: draw.text(60), note: draw.text(400), recalibrateBy: null },
      making(draw),
    );
    return done.ok ? done.value.garden : garden;
  },
  useCalibration: (garden, draw) => calibrations.useCalibration(garden, idOf(garden.calibrations, draw)),
  copyToSister: (garden, draw) =>
    calibrations.copyToSister(
      garden,
      idOf(garden.calibrations, draw),
      idOf(garden.channels, draw),
      making(draw),
    )?.garden ?? garden,
  setSoilFacts: (garden, draw) =>
    calibrations.setSoilFacts(garden, idOf(garden.plots, draw), {
      name: draw.text(400),
      bulkDensity: draw.number(0.02, 2.6),
      kindId: pick(SOIL_KINDS, draw)?.id ?? '',
    }),
  joinWords: (garden, draw) => edit.joinWords(garden, idOf(garden.plots, draw)),
  pickNumber: (garden, draw) =>
    bench.pickNumber(garden, idOf(garden.boards, draw), {
      before: draw.text(200),
      name: draw.text(60) || 'x',
    }),
  copyRules: (garden, draw) =>
    copyRules(
      garden,
      idOf(garden.plots, draw),
      garden.plots.map((one) => one.id),
    ).garden,
  setDecides: (garden, draw) => {
    const plotId = idOf(garden.plots, draw);
    const by = pick(DECIDED_BY, draw) ?? 'one';
    return edit.setDecides(garden, plotId, {
      by,
      channelIds: candidatesOf(garden, plotId)
        .slice(0, by === 'one' ? 1 : 8)
        .flatMap((one) => (draw.random() < 0.6 ? [one.id] : [])),
    });
  },
  setUnits: (garden, draw) =>
    edit.setUnits(garden, {
      temperature: pick(['C', 'F'] as const, draw) ?? 'C',
      volume: pick(['l', 'gal'] as const, draw) ?? 'l',
      length: pick(['cm', 'in'] as const, draw) ?? 'cm',
    }),
  setRecalibrateBy: (garden, draw) =>
    calibrations.setRecalibrateBy(garden, idOf(garden.calibrations, draw), '2027-05-01T10:00:00Z'),
  addReservoir: (garden, draw) => reservoirs.addReservoir(garden, draw.text(60) || 'x', draw.random),
  setReservoir: (garden, draw) =>
    reservoirs.setReservoir(garden, idOf(garden.reservoirs, draw), {
      channelId: pick(garden.channels, draw)?.id ?? null,
      minimumMl: draw.number(0, 1e8),
    }),
  removeReservoir: (garden, draw) => reservoirs.removeReservoir(garden, idOf(garden.reservoirs, draw)),
  addLevel: (garden, draw) =>
    reservoirs.addLevel(garden, idOf(garden.reservoirs, draw), {
      raw: draw.number(-1e6, 1e6),
      volumeMl: draw.number(0, 1e8),
    }),
  removeLevel: (garden, draw) => {
    const tank = pick(garden.reservoirs, draw);
    return reservoirs.removeLevel(garden, tank?.id ?? '', pick(tank?.levels ?? [], draw)?.raw ?? 0);
  },
  addOutlet: (garden, draw) =>
    withLine(garden, draw, (line) =>
      reservoirs.addOutlet(
        garden,
        line.id,
        {
          name: draw.text(60) || 'x',
          plotId: pick(garden.plots, draw)?.id ?? null,
          cupMl: draw.number(0, 1e6),
        },
        draw.random,
      ),
    ),
  setOutlet: (garden, draw) =>
    withLine(garden, draw, (line) =>
      reservoirs.setOutlet(garden, line.id, idOf(line.outlets, draw), { cupMl: draw.number(0, 1e6) }),
    ),
  removeOutlet: (garden, draw) =>
    withLine(garden, draw, (line) => reservoirs.removeOutlet(garden, line.id, idOf(line.outlets, draw))),
  addTrial: (garden, draw) =>
    withLine(garden, draw, (line) =>
      trials.addTrial(
        garden,
        line.id,
        {
          runS: draw.number(0.1, 3600),
          volumeMl: draw.number(0, 1e6),
          takenAt: '2026-05-01T10:00:00Z',
          simulated: false,
        },
        draw.random,
      ),
    ),
  removeTrial: (garden, draw) =>
    withLine(garden, draw, (line) => trials.removeTrial(garden, line.id, idOf(line.trials, draw))),
  setTrialUsed: (garden, draw) =>
    withLine(garden, draw, (line) => trials.setTrialUsed(garden, line.id, idOf(line.trials, draw), false)),
  setTrialNote: (garden, draw) =>
    withLine(garden, draw, (line) => trials.setTrialNote(garden, line.id, draw.text(400))),
  standFor: (garden, draw) => {
    const part = pick(garden.wiring.parts, draw);
    const entry = part && catalogueOf(garden).get(part.entryId);
    const standing = entry ? standingOf(garden, entry.role) : null;
    const list = standing?.list ?? pick(STANDING, draw) ?? 'plots';
    const id = idOf(standing?.choices ?? garden[list], draw);
    return plan.standFor(garden, part?.id ?? 'none', draw.random() < 0.2 ? null : { list, id });
  },
  setWiring: (garden, draw) => {
    const catalogue = catalogueOf(garden);
    const entry = pick(BUILT_IN, draw);
    const { wiring } = garden;
    if (!entry || draw.random() < 0.2)
      return plan.setWiring(garden, removePart(wiring, idOf(wiring.parts, draw)));
    const { netlist } = addPart(wiring, catalogue, { entryId: entry.id, label: draw.text(60) || 'x' });
    const [from, to] = [pick(netlist.parts, draw), pick(netlist.parts, draw)];
    const terminal = (part: typeof from) =>
      pick(catalogue.get(part?.entryId ?? '')?.terminals ?? [], draw)?.id ?? 'none';
    return plan.setWiring(
      garden,
      from && to
        ? connect(
            netlist,
            { part: from.id, terminal: terminal(from) },
            { part: to.id, terminal: terminal(to) },
          )
        : netlist,
    );
  },
  changePlan: (garden, draw) =>
    plan.changePlan(garden, {
      supply: { ...garden.plan.supply, everyS: draw.number(1, 86_400), capacityMah: draw.number(1, 1e7) },
      money: {
        ...garden.plan.money,
        prices: { stick: draw.number(0, 1e7) },
        currency: draw.text(8).trim() || '£',
      },
    }),
  setPlacement: (garden, draw) =>
    plan.setPlacement(garden, idOf(garden.probes, draw), {
      where: draw.text(400),
      depthCm: draw.number(0, 300),
    }),
  setEntry: (garden, draw) => {
    const entry = pick(BUILT_IN, draw);
    return entry
      ? plan.setEntry(garden, { ...entry, id: `own-${draw.whole(0, 9)}`, name: draw.text(60).trim() || 'x' })
      : garden;
  },
  addContact: (garden, draw) =>
    contacts.addContact(
      garden,
      idOf(garden.plots, draw),
      draw.random() < 0.5 ? 'permit' : 'light',
      draw.random,
    ),
  setContact: (garden, draw) => {
    const edge = () => ({
      by: pick(['sunrise', 'sunset'] as const, draw) ?? 'sunset',
      minute: draw.whole(-720, 720),
    });
    return contacts.setContact(garden, idOf(garden.contacts, draw), {
      name: draw.text(60) || 'x',
      automatic: draw.random() < 0.5,
      rule:
        draw.random() < 0.5
          ? { kind: 'permit', atRest: draw.random() < 0.5 ? 'forbids' : 'permits' }
          : {
              kind: 'light',
              from: edge(),
              to: edge(),
              cell: { darkBelow: draw.number(-1e6, 1e6), brightAbove: draw.number(-1e6, 1e6) },
            },
      mostOnMin: draw.whole(1, 10_080),
      dayMaxMin: draw.whole(1, 1440),
      leastOffMin: draw.whole(1, 1440),
      staleAfterS: draw.whole(5, 86_400),
    });
  },
  removeContact: (garden, draw) => contacts.removeContact(garden, idOf(garden.contacts, draw)),
  removeEntry: (garden, draw) => plan.removeEntry(garden, idOf(garden.catalogue, draw)),
  importEntries: (garden, draw) => {
    const entry = pick(BUILT_IN, draw);
    return entry ? plan.importEntries(garden, [{ ...entry, good: draw.text(400) }]) : garden;
  },
};
