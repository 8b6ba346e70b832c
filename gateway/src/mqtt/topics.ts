/** Topics of the garden's boards: `trowel/GARDEN/BOARD/report` towards the gateway, `trowel/GARDEN/BOARD/answer` back; and of whoever reads along: `trowel/GARDEN/plots/PLOT/…` and `trowel/GARDEN/alerts`. */
import type { BoardKey } from '../boards/keys.ts';

type Board = Pick<BoardKey, 'gardenId' | 'boardId'>;

export const reportTopic = ({ gardenId, boardId }: Board): string => `trowel/${gardenId}/${boardId}/report`;
export const answerTopic = ({ gardenId, boardId }: Board): string => `trowel/${gardenId}/${boardId}/answer`;

export const plotTopic = (gardenId: string, plotId: string, what: string): string =>
  `trowel/${gardenId}/plots/${plotId}/${what}`;
export const alertsTopic = (gardenId: string): string => `trowel/${gardenId}/alerts`;

/** Whether a topic, or a pattern of topics, lies within what whoever reads along may hear. */
export const isForReaders = (gardenId: string, topic: string): boolean =>
  topic === alertsTopic(gardenId) || topic.startsWith(`trowel/${gardenId}/plots/`);

/** Which gateway a garden belongs to, of several behind one broker: retained. */
export const ownerTopic = (gardenId: string): string => `trowel/${gardenId}/owner`;
export const gardenOfOwner = (topic: string): string | null =>
  /^trowel\/([\w-]{1,60})\/owner$/.exec(topic)?.[1] ?? null;
/** Reports of all boards of a garden. */
export const reportsTopic = (gardenId: string): string => `trowel/${gardenId}/+/report`;
export function boardOfReport(topic: string): Board | null {
  const [, gardenId, boardId] = /^trowel\/([\w-]{1,60})\/([\w-]{1,60})\/report$/.exec(topic) ?? [];
  return gardenId === undefined || boardId === undefined ? null : { gardenId, boardId };
}
