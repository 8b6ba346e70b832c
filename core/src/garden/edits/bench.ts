/** Changes that the bench makes to a garden: which name in a stream is what, what was tested, what was corrected. Each gives a new garden. */
import { byId } from '../../quantity/byId.ts';
import type { BusSpeed } from '../../bus/timing.ts';
import type { RegisterMap } from '../../bus/registers.ts';
import type { Quantity } from '../../quantity/quantities.ts';
import type { PickedNumber } from '../../signal/pickedNumber.ts';
import type { Correction } from '../../temperature/correction.ts';
import { EMPTY_CHANNEL, NEW_PROBE, USUAL_DEPTH_CM, withoutChannels } from './plots.ts';
import { makeId } from '../document/ids.ts';
import { syncWiring } from './plan.ts';
import type { TestStep } from '../document/probeSchema.ts';
import { firstQuantityOf, type ProbeKind } from '../../quantity/probeKind.ts';
import type { Claim } from '../bind/claims.ts';
import type { Board, Channel, Garden, Probe } from '../document/schema.ts';

export type TestResult = NonNullable<Probe['firstTest'][TestStep]>;

/** What a name in the stream belongs to. */
export type StreamOwner =
  /** A channel that listens to another name until now. */
  | { readonly kind: 'channel'; readonly channelId: string }
  /** Another quantity of a probe that is there. */
  | { readonly kind: 'probe'; readonly probeId: string; readonly quantity: Quantity }
  /** A probe that is new in a plot. */
  | {
      readonly kind: 'new probe';
      readonly plotId: string;
      readonly label: string;
      readonly probeKind: ProbeKind;
      readonly colour: Probe['colour'];
      readonly depthCm: number;
      readonly quantity: Quantity;
    }
  /** The board itself: its battery, a tank, air. */
  | { readonly kind: 'board'; readonly label: string; readonly quantity: Quantity };

const changeProbe = (garden: Garden, probeId: string, change: (probe: Probe) => Probe): Garden => ({
  ...garden,
  probes: garden.probes.map((one) => (one.id === probeId ? change(one) : one)),
});

const changeChannel = (garden: Garden, channelId: string, change: (channel: Channel) => Channel): Garden => ({
  ...garden,
  channels: garden.channels.map((one) => (one.id === channelId ? change(one) : one)),
});

/** Says once what a name in a board's stream is. The name is taken from any other channel of that board, for it can only be one thing. */
export function mapStream(
  garden: Garden,
  stream: { readonly boardId: string; readonly name: string },
  owner: StreamOwner,
  random: () => number,
): Garden {
  const freed: Garden = {
    ...garden,
    channels: garden.channels.map((one) =>
      one.boardId === stream.boardId && one.streamName === stream.name ? { ...one, streamName: '' } : one,
    ),
  };
  if (owner.kind === 'channel')
    return changeChannel(freed, owner.channelId, (one) => ({
      ...one,
      boardId: stream.boardId,
      streamName: stream.name,
    }));
  const channel = {
    ...EMPTY_CHANNEL,
    id: makeId('channel', new Set(garden.channels.map((one) => one.id)), random),
    boardId: stream.boardId,
    streamName: stream.name,
    quantity: owner.quantity,
  };
  if (owner.kind === 'board')
    return { ...freed, channels: [...freed.channels, { ...channel, probeId: null, label: owner.label }] };
  if (owner.kind === 'probe')
    return { ...freed, channels: [...freed.channels, { ...channel, probeId: owner.probeId }] };
  const probe: Probe = {
    ...NEW_PROBE,
    id: makeId('probe', new Set(garden.probes.map((one) => one.id)), random),
    plotId: owner.plotId,
    label: owner.label,
    kind: owner.probeKind,
    colour: owner.colour,
    depthCm: owner.depthCm,
  };
  return {
    ...freed,
    probes: [...freed.probes, probe],
    channels: [...freed.channels, { ...channel, probeId: probe.id }],
  };
}

/** Takes over what a person has said of several numbers at once; a number that is ignored is not asked about again. @param probeKind of the probes that are new */
export function claimStreams(
  garden: Garden,
  claims: readonly { readonly boardId: string; readonly name: string; readonly claim: Claim }[],
  probeKind: Probe['kind'],
  random: () => number,
): Garden {
  return claims.reduce((next, { boardId, name, claim }) => {
    const owner = ownerOf(next, name, claim, probeKind);
    return owner
      ? mapStream(next, { boardId, name }, owner, random)
      : setBoardReads(next, boardId, (reads) => ({
          ignores: [...new Set([...reads.ignores, name.slice(0, 60)])].slice(-MOST_IGNORED),
        }));
  }, garden);
}

const MOST_IGNORED = 200;

function ownerOf(garden: Garden, name: string, claim: Claim, probeKind: Probe['kind']): StreamOwner | null {
  switch (claim.kind) {
    case 'ignore':
      return null;
    case 'channel':
      return { kind: 'channel', channelId: claim.channelId };
    case 'probe':
      return { kind: 'probe', probeId: claim.probeId, quantity: claim.quantity };
    case 'board':
      return { kind: 'board', label: name.slice(0, 60), quantity: claim.quantity };
    case 'new probe':
      return {
        kind: 'new probe',
        plotId: claim.plotId,
        label: `P${garden.probes.length + 1}`,
        probeKind,
        colour: 'none',
        depthCm: USUAL_DEPTH_CM,
        // Raw counts of a kind that has a scale of its own are on that scale.
        quantity: claim.quantity === 'moisture' ? firstQuantityOf(probeKind) : claim.quantity,
      };
  }
}

const MOST_PICKED = 20;

/** A number that a person has pointed at in a line that nothing else reads; its name gets a number where it is taken. */
export function pickNumber(garden: Garden, boardId: string, of: PickedNumber): Garden {
  const taken = new Set([
    ...garden.channels.filter((one) => one.boardId === boardId).map((one) => one.streamName),
    ...(byId(garden.boards, boardId)?.reads.picked ?? []).map((one) => one.name),
  ]);
  let name = of.name;
  for (let turn = 2; taken.has(name); turn += 1) name = `${of.name.slice(0, 50)} (${turn})`;
  return setBoardReads(garden, boardId, (reads) => ({
    picked: [...reads.picked.filter((one) => one.before !== of.before), { before: of.before, name }].slice(
      -MOST_PICKED,
    ),
  }));
}

/** Says how the lines of a board are read. */
/** Says what is watched of a board itself: its battery, its night, whether it is charged in the cold. */
export const setBoardWatch = (garden: Garden, boardId: string, change: Partial<Board['watch']>): Garden => ({
  ...garden,
  boards: garden.boards.map((one) =>
    one.id === boardId ? { ...one, watch: { ...one.watch, ...change } } : one,
  ),
});

export const setBoardReads = (
  garden: Garden,
  boardId: string,
  change: (reads: Board['reads']) => Partial<Board['reads']>,
): Garden => ({
  ...garden,
  boards: garden.boards.map((one) =>
    one.id === boardId ? { ...one, reads: { ...one.reads, ...change(one.reads) } } : one,
  ),
});

/** Which pins a channel is wired to, as a person writes them: "P34", or "P26 P27" for a sensor with two. */
export const setChannelPin = (garden: Garden, channelId: string, pin: string): Garden =>
  changeChannel(garden, channelId, (channel) => ({ ...channel, pin: pin.trim() }));

/** Removes a channel, and its probe when that has no other. A plot's last moisture channel stays: the sheets need one. Stored readings stay. */
export function removeChannel(garden: Garden, channelId: string): Garden {
  const gone = byId(garden.channels, channelId);
  const channels = garden.channels.filter((one) => one.id !== channelId);
  const isLast = gone && !channels.some((one) => one.probeId === gone.probeId);
  return syncWiring({
    ...withoutChannels(garden, new Set(channels.map((one) => one.id))),
    channels,
    calibrations: garden.calibrations.filter((one) => one.channelId !== channelId),
    runs: garden.runs.filter((one) => one.channelId !== channelId),
    probes:
      isLast && gone.probeId !== null
        ? garden.probes.filter((one) => one.id !== gone.probeId)
        : garden.probes,
  });
}

export const setCorrection = (garden: Garden, channelId: string, correction: Correction): Garden =>
  changeChannel(garden, channelId, (one) => ({ ...one, correction }));

export const setFirstTest = (
  garden: Garden,
  probeId: string,
  step: TestStep,
  result: TestResult | null,
): Garden =>
  changeProbe(garden, probeId, (one) => ({ ...one, firstTest: { ...one.firstTest, [step]: result } }));

export const setLabelProved = (garden: Garden, probeId: string, provedAt: string | null): Garden =>
  changeProbe(garden, probeId, (one) => ({ ...one, labelProvedAt: provedAt }));

export const setWarmUp = (garden: Garden, probeId: string, warmUp: Probe['warmUp']): Garden =>
  changeProbe(garden, probeId, (one) => ({ ...one, warmUp }));

/** Gives two probes each other's stream: what a swapped plug or label needs. Calibrations stay with the streams they were made on. */
export function swapStreams(garden: Garden, oneId: string, otherId: string): Garden {
  const one = byId(garden.channels, oneId);
  const other = byId(garden.channels, otherId);
  if (!one || !other) throw new RangeError(`swapStreams: no channel ${one ? otherId : oneId}`);
  const owners = new Map([
    [oneId, other.probeId],
    [otherId, one.probeId],
  ]);
  return {
    ...garden,
    channels: garden.channels.map((channel) => {
      const probeId = owners.get(channel.id);
      return probeId === undefined ? channel : { ...channel, probeId };
    }),
  };
}

/** Puts an own register map in place, new or changed. */
export const setRegisterMap = (garden: Garden, map: RegisterMap): Garden => ({
  ...garden,
  registerMaps: [...garden.registerMaps.filter((one) => one.id !== map.id), map],
});

export const removeRegisterMap = (garden: Garden, mapId: string): Garden => ({
  ...garden,
  registerMaps: garden.registerMaps.filter((one) => one.id !== mapId),
});

export const setBus = (garden: Garden, probeId: string, bus: Probe['bus']): Garden =>
  changeProbe(garden, probeId, (one) => ({ ...one, bus }));

/** What the probes on buses are set to. */
export const setBusSpeed = (garden: Garden, baud: BusSpeed): Garden => ({
  ...garden,
  probes: garden.probes.map((one) => (one.bus ? { ...one, bus: { ...one.bus, baud } } : one)),
});

const OF_FIELD: Readonly<Record<RegisterMap['fields'][number]['quantity'], Quantity>> = {
  moisture: 'factory moisture',
  temperature: 'soil temperature',
  conductivity: 'conductivity',
  pH: 'pH',
  nitrogen: 'nitrogen',
  phosphorus: 'phosphorus',
  potassium: 'potassium',
  other: 'other',
};

/** Name of a bus probe's field in the stream: "b1.moisture". Fields have at most 20 letters, so a label of up to 39 stands whole. */
export const busStreamName = (label: string, field: string): string =>
  `${label
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .slice(0, 39)}.${field}`;

/** A new bus probe in a plot, with a channel for every field of its map. */
export function addBusProbe(
  garden: Garden,
  of: {
    readonly plotId: string;
    readonly boardId: string;
    readonly label: string;
    readonly colour: Probe['colour'];
    readonly depthCm: number;
    readonly address: number;
    readonly baud: BusSpeed;
    readonly map: RegisterMap;
  },
  random: () => number,
): Garden {
  const probe: Probe = {
    ...NEW_PROBE,
    id: makeId('probe', new Set(garden.probes.map((one) => one.id)), random),
    plotId: of.plotId,
    label: of.label,
    kind: 'steel-rod bus probe',
    colour: of.colour,
    depthCm: of.depthCm,
    bus: { address: of.address, mapId: of.map.id, baud: of.baud },
  };
  const taken = new Set(garden.channels.map((one) => one.id));
  const channels = of.map.fields.map((field): Channel => {
    const channelId = makeId('channel', taken, random);
    taken.add(channelId);
    return {
      ...EMPTY_CHANNEL,
      id: channelId,
      probeId: probe.id,
      boardId: of.boardId,
      quantity: OF_FIELD[field.quantity],
      label: field.quantity === 'other' ? field.name : '',
      pin: 'bus',
      streamName: busStreamName(of.label, field.name),
    };
  });
  return { ...garden, probes: [...garden.probes, probe], channels: [...garden.channels, ...channels] };
}
