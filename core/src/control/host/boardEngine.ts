/** An engine's settings together with what its places stand for: which line, channel and reservoir of the garden is meant. */
import type { ContactConfig } from '../contacts/contract.ts';
import type { EngineConfig } from '../engine/settings.ts';
import type { SensorSource } from './combined.ts';

/** Null where nothing measures it, or where nobody has said which of several is meant. */
export type AroundIds = {
  readonly airId: string | null;
  readonly lightId: string | null;
  readonly rainId: string | null;
  /** A thermometer in the soil of the line's plot. */
  readonly soilId: string | null;
  readonly skipId: string | null;
};

export type BoardEngine = {
  readonly boardId: string;
  readonly config: EngineConfig;
  /** By place in the settings. */
  readonly lineIds: readonly string[];
  readonly sensors: readonly SensorSource[];
  readonly tankIds: readonly string[];
  readonly tankChannelIds: readonly (string | null)[];
  /** By line: the channels that its conditions go by. */
  readonly around: readonly AroundIds[];
  readonly batteryId: string | null;
  /** Outputs that hold a state, and by contact its id and the channels of its surroundings. */
  readonly contacts: readonly ContactConfig[];
  readonly contactIds: readonly string[];
  readonly contactsAround: readonly AroundIds[];
};

/** A reading of a reservoir or of the weather older than this is unknown, s. */
export const AROUND_STALE_S = 900;

/** Every channel that a board's decisions go by, each once. */
export const channelsOf = ({
  sensors,
  tankChannelIds,
  around,
  contactsAround,
  batteryId,
}: BoardEngine): string[] => {
  const about = [...around, ...contactsAround].flatMap((one) => Object.values(one));
  const all = [
    ...sensors.flatMap(({ members }) => members.map((one) => one.channelId)),
    ...tankChannelIds,
    ...about,
    batteryId,
  ];
  return [...new Set(all.filter((id) => id !== null))];
};

/** A board with nothing to decide. */
export const decidesNothing = ({ lineIds, contactIds }: BoardEngine): boolean =>
  lineIds.length + contactIds.length === 0;
