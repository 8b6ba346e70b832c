/**
 * The garden: one document with everything but the readings and the events. Version 12.
 *
 * Field names carry their units. Moisture is whole tenths of a percent (0..1000) of the calibration's own kind. Limits on lengths and
 * ranges keep a damaged file from becoming a damaged garden.
 */
import { z } from '../../quantity/schema.ts';
import { checkEdges, WORD_SCHOOLS } from '../../quantity/bands.ts';
import { checkLimits } from '../../control/limits.ts';
import { makeCurve } from '../../calibration/curve.ts';
import { entrySchema } from '../../catalogue/schema.ts';
import { MOST_ENTRIES } from '../../catalogue/catalogueFile.ts';
import { planSchema } from '../../plan/schema.ts';
import { netlistSchema } from '../../wiring/netlist.ts';
import { registerMapSchema } from '../../bus/registers.ts';
import { MOST } from '../../quantity/bounds.ts';
import { calibration, capture, run, soilFacts } from './calibrationSchema.ts';
import { DECIDED_BY } from '../../control/host/combined.ts';
import { unitsSchema } from '../../quantity/units.ts';
import { leaderOf } from '../../control/programs/programs.ts';
import { ALERT_KINDS } from '../../control/alerts.ts';
import { SIGNAL_STATES } from '../../control/signals.ts';
import { WEATHER_IDS } from '../../plants/weather.ts';
import { channel, probe } from './probeSchema.ts';
import { id, name, text, time } from '../../quantity/fields.ts';
import { contact } from './contactSchema.ts';
import { alertRule, plotSize, reservoir, signalRule, warmth, waterLine } from './waterSchema.ts';

export const GARDEN_FORMAT = 'plain-trowel-garden';
export const GARDEN_VERSION = 13;

const tenths = z.int().min(0).max(1000);

/** What a plot roughly is. */
export const PLOT_KINDS = ['pot', 'trough', 'bed', 'lawn'] as const;

const plot = z.strictObject({
  id,
  name,
  kind: z.enum(PLOT_KINDS).nullable(),
  /** Way of a cable from the board's place to it, m; null: not measured. */
  cableM: z.number().min(0).max(1000).nullable(),
  plant: text,
  /** Which of its probes decide, and how; no channel named: the first that can, or all of them together. */
  decides: z.strictObject({ by: z.enum(DECIDED_BY), channelIds: z.array(id).max(8) }),
  limits: z.strictObject({ startTenths: tenths, stopTenths: tenths }),
  /** Somebody has set or taken them; false: as they stood at first, which means nothing for percent by volume or by mass. */
  limitsSet: z.boolean(),
  /** The words of its scale: dry, low, right, wet, flooded; or too dry, good, too wet. */
  words: z.enum(WORD_SCHOOLS),
  /** Upper edges of dry, low, right and wet. */
  bandEdges: z.tuple([tenths, tenths, tenths, tenths]),
  /** The soil in words, and what is known of it. */
  soil: z.strictObject({ name: text, ...soilFacts.shape, kindId: z.string().max(40) }),
  /** Plant group of the built-in table; empty: not said. */
  plantGroupId: z.string().max(40),
  size: plotSize.nullable(),
  warmth,
});

const board = z.strictObject({
  id,
  name,
  /** What it is, by its traits: "3.3 V Wi-Fi board, 12-bit inputs". */
  traits: text,
  adcBits: z.int().min(8).max(24),
  supplyV: z.number().min(1).max(30),
  /** What is watched of the board itself, whether it has a pump or not; null: nobody has said. */
  watch: z.strictObject({
    batteryLowV: z.number().min(1).max(60).nullable(),
    /** Night is when its light sensor reads below this. */
    darkBelow: z.number().min(-1e6).max(1e6).nullable(),
    /** It lives on a lithium cell that is charged, which must not be below freezing. */
    isLithium: z.boolean(),
  }),
  /** How its lines are read, as a person has said. */
  reads: z.strictObject({
    /** What a comma between digits is; null while it was not asked. */
    comma: z.enum(['decimal', 'border']).nullable(),
    /** Names whose numbers nobody wants. */
    ignores: z.array(z.string().min(1).max(60)).max(200),
    /** Numbers pointed at in lines that nothing else reads: what stands before them, digits as "#". */
    picked: z.array(z.strictObject({ before: z.string().max(200), name: z.string().min(1).max(60) })).max(20),
  }),
});

const shape = z.strictObject({
  format: z.literal(GARDEN_FORMAT),
  version: z.literal(GARDEN_VERSION),
  id,
  name,
  note: text,
  /** Units on the screen; everything is stored in litres, °C and cm all the same. */
  units: unitsSchema,
  /** IANA name; days and hours on the screen follow it. */
  timeZone: z.string().max(60).refine(isTimeZone, 'is not a time zone known here'),
  madeAt: time,
  /** One reading of each channel is kept per this many seconds. */
  logEveryS: z.int().min(1).max(3600),
  plots: z.array(plot).max(MOST.plots),
  boards: z.array(board).max(MOST.boards),
  probes: z.array(probe).max(MOST.probes),
  channels: z.array(channel).max(MOST.channels),
  calibrations: z.array(calibration).max(MOST.calibrations),
  /** Calibrations under way, at most one a channel. */
  runs: z.array(run).max(MOST.runs),
  waterLines: z.array(waterLine).max(MOST.waterLines),
  reservoirs: z.array(reservoir).max(MOST.reservoirs),
  /** Outputs that hold a state instead of giving a dose. */
  contacts: z.array(contact).max(MOST.contacts),
  /** What lamps and displays say, by priority: every state once, "content" last. */
  signals: z.array(signalRule).length(SIGNAL_STATES.length),
  alerts: z.array(alertRule).length(ALERT_KINDS.length),
  /** Weather that the need of water is estimated for. */
  weather: z.enum(WEATHER_IDS),
  plan: planSchema,
  wiring: netlistSchema,
  /** Own entries of the catalogue; one with the id of a built-in entry stands in its place. */
  catalogue: z.array(entrySchema).max(MOST_ENTRIES),
  /** Own register maps of bus probes; one with the id of a built-in map stands in its place. */
  registerMaps: z.array(registerMapSchema).max(MOST.registerMaps),
});

export type Garden = z.infer<typeof shape>;
export type Plot = Garden['plots'][number];
export type Board = Garden['boards'][number];
export type Probe = Garden['probes'][number];
export type Channel = Garden['channels'][number];
export type Capture = z.infer<typeof capture>;
export type Run = Garden['runs'][number];
export type Calibration = Garden['calibrations'][number];
export type Placement = Probe['placement'];
export type WaterLine = Garden['waterLines'][number];
export type Reservoir = Garden['reservoirs'][number];
export type PointOf = Run['points'][number];

export const gardenSchema = shape.superRefine((garden, ctx) => {
  const report = (path: PropertyKey[], message: string) => {
    ctx.addIssue({ code: 'custom', path, message });
  };
  checkIds(garden, report);
  checkLinks(garden, report);
  for (const [at, one] of garden.plots.entries()) {
    if (checkLimits(one.limits, 0))
      report(['plots', at, 'limits', 'stopTenths'], 'must lie at least 10 tenths above startTenths');
    const edge = checkEdges(one.bandEdges);
    if (edge)
      report(
        ['plots', at, 'bandEdges', edge.at],
        `must be at least ${edge.leastTenths}; the edges rise by 10 tenths or more`,
      );
  }
  for (const [at, one] of garden.calibrations.entries()) {
    const curve = makeCurve(
      one.shape,
      one.percentKind,
      [one.range.lowCounts, one.range.highCounts],
      one.noiseCounts,
    );
    if (!curve.ok) report(['calibrations', at, 'shape'], `is no curve that can be read: ${curve.issue.kind}`);
  }
});

type Report = (path: PropertyKey[], message: string) => void;

const LISTS = [
  'plots',
  'boards',
  'probes',
  'channels',
  'calibrations',
  'runs',
  'waterLines',
  'reservoirs',
  'contacts',
  'catalogue',
  'registerMaps',
] as const;

function checkIds(garden: Garden, report: Report): void {
  for (const list of LISTS) {
    const seen = new Set<string>();
    for (const [at, one] of garden[list].entries()) {
      if (seen.has(one.id)) report([list, at, 'id'], `"${one.id}" stands twice in ${list}`);
      seen.add(one.id);
    }
  }
}

function checkLinks(garden: Garden, report: Report): void {
  const known = (list: (typeof LISTS)[number]) => new Set(garden[list].map((one) => one.id));
  const must = (path: PropertyKey[], list: (typeof LISTS)[number], wanted: string | null) => {
    if (wanted !== null && !known(list).has(wanted))
      report(path, `names "${wanted}", which is not among the ${list}`);
  };
  const mustAround = (path: PropertyKey[], ids: WaterLine['around']) => {
    for (const key of ['airId', 'lightId', 'rainId', 'skipId'] as const)
      must([...path, key], 'channels', ids[key]);
  };
  for (const [at, one] of garden.plots.entries())
    for (const [place, channelId] of one.decides.channelIds.entries())
      must(['plots', at, 'decides', 'channelIds', place], 'channels', channelId);
  for (const [at, one] of garden.probes.entries()) must(['probes', at, 'plotId'], 'plots', one.plotId);
  for (const [at, one] of garden.channels.entries()) {
    must(['channels', at, 'probeId'], 'probes', one.probeId);
    must(['channels', at, 'boardId'], 'boards', one.boardId);
    must(['channels', at, 'calibrationId'], 'calibrations', one.calibrationId);
  }
  for (const [at, one] of garden.calibrations.entries())
    must(['calibrations', at, 'channelId'], 'channels', one.channelId);
  const running = new Set<string>();
  for (const [at, one] of garden.runs.entries()) {
    must(['runs', at, 'channelId'], 'channels', one.channelId);
    if (running.has(one.channelId)) report(['runs', at, 'channelId'], 'has two runs');
    running.add(one.channelId);
  }
  for (const [at, one] of garden.waterLines.entries()) {
    must(['waterLines', at, 'boardId'], 'boards', one.boardId);
    must(['waterLines', at, 'plotId'], 'plots', one.plotId);
    must(['waterLines', at, 'tankId'], 'reservoirs', one.tankId);
    mustAround(['waterLines', at, 'around'], one.around);
    must(['waterLines', at, 'program', 'leaderId'], 'waterLines', leaderOf(one.program));
    for (const [place, outlet] of one.outlets.entries())
      must(['waterLines', at, 'outlets', place, 'plotId'], 'plots', outlet.plotId);
  }
  for (const [at, one] of garden.reservoirs.entries())
    must(['reservoirs', at, 'channelId'], 'channels', one.channelId);
  for (const [at, one] of garden.contacts.entries()) {
    must(['contacts', at, 'boardId'], 'boards', one.boardId);
    must(['contacts', at, 'plotId'], 'plots', one.plotId);
    mustAround(['contacts', at, 'around'], one.around);
  }
  checkOnceEach(garden, report);
}

/** Every signal and every alert stands in its list once; "content" is the last word. */
function checkOnceEach(garden: Garden, report: Report): void {
  const each = (list: readonly string[], path: PropertyKey) => {
    if (new Set(list).size !== list.length) report([path], 'has one of its kinds twice');
  };
  each(
    garden.signals.map((one) => one.state),
    'signals',
  );
  each(
    garden.alerts.map((one) => one.kind),
    'alerts',
  );
  if (garden.signals.at(-1)?.state !== 'content') report(['signals'], 'must end with "content"');
}

function isTimeZone(zone: string): boolean {
  try {
    new Intl.DateTimeFormat('en', { timeZone: zone });
    return true;
  } catch {
    return false;
  }
}
