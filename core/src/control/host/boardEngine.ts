/** An engine's settings together with what its places stand for: which line, channel and reservoir of the garden is meant. */
import type { EngineConfig } from '../engine/settings.ts';

export type BoardEngine = {
  readonly boardId: string;
  readonly config: EngineConfig;
  /** By place in the settings. */
  readonly lineIds: readonly string[];
  readonly sensorChannelIds: readonly string[];
  readonly tankIds: readonly string[];
  readonly tankChannelIds: readonly (string | null)[];
  /** Channels that conditions go by; null where nothing measures it. */
  readonly around: {
    readonly airId: string | null;
    readonly lightId: string | null;
    readonly rainId: string | null;
    readonly batteryId: string | null;
    /** By sensor: a thermometer in the soil of the same plot. */
    readonly soilIds: readonly (string | null)[];
  };
};

/** A reading of a reservoir or of the weather older than this is unknown, s. */
export const AROUND_STALE_S = 900;

/** Every channel that a board's decisions go by, each once. */
export const channelsOf = ({ sensorChannelIds, tankChannelIds, around }: BoardEngine): readonly string[] => {
  const { airId, lightId, rainId, batteryId, soilIds } = around;
  const all = [...sensorChannelIds, ...tankChannelIds, airId, lightId, rainId, batteryId, ...soilIds];
  return [...new Set(all.filter((id) => id !== null))];
};
