/**
 * How plots stand, for other programs in the house: percent, unit, word and lamp of each plot as retained topics, and alerts as they are told. What is not known says so; an old
 * number never stands there as if it were of now.
 */
import { isUnknown } from '@plain-trowel/core/control/plotState';
import { isShownRaw, percentUnit } from '@plain-trowel/core/quantity/percentKind';
import { stateWord } from '@plain-trowel/core/telling/plotWords';
import type { GardenWatch } from '../telling/gardenWatch.ts';
import type { Teller } from '../telling/teller.ts';
import { alertsTopic, plotTopic } from './topics.ts';

const LOOK_EVERY_MS = 2000;
const UNKNOWN = 'unknown';

export class Outward {
  private readonly said = new Map<string, string>();
  private readonly timer: ReturnType<typeof setInterval>;
  private readonly stop: () => void;

  constructor(
    private readonly teller: Teller,
    private readonly publish: (topic: string, payload: string, retain: boolean) => void,
    private readonly isOurs: (gardenId: string) => boolean = () => true,
  ) {
    this.timer = setInterval(() => this.look(), LOOK_EVERY_MS);
    this.timer.unref();
    this.stop = teller.onChange((gardenId, change) => {
      if (change.kind !== 'told' || !isOurs(gardenId)) return;
      for (const event of change.events) publish(alertsTopic(gardenId), JSON.stringify(event), false);
    });
  }

  /** Says what has changed since the last look. */
  look(): void {
    const now = new Map<string, string>();
    for (const watch of this.teller.all().filter(({ garden }) => this.isOurs(garden.id)))
      for (const [topic, payload] of topicsOf(watch)) now.set(topic, payload);
    for (const [topic, payload] of now)
      if (this.said.get(topic) !== payload) this.publish(topic, payload, true);
    // An empty one takes away what was retained, as of a plot that is gone; of a garden that went to another gateway that one speaks.
    for (const topic of this.said.keys())
      if (!now.has(topic) && this.isOurs(gardenOf(topic))) this.publish(topic, '', true);
    this.said.clear();
    for (const [topic, payload] of now) this.said.set(topic, payload);
  }

  close(): void {
    clearInterval(this.timer);
    this.stop();
  }
}

const gardenOf = (topic: string): string => topic.split('/')[1] ?? '';

/** What is said of the plots of a garden whose boards report here. */
function topicsOf(watch: GardenWatch): readonly (readonly [string, string])[] {
  const { garden } = watch;
  const signals = watch.signals();
  return garden.plots.flatMap(({ id }): (readonly [string, string])[] => {
    const view = watch.isHere(id) ? watch.viewOf(id) : null;
    if (!view) return [];
    const { scale, span } = view;
    const percent =
      isUnknown(view.state) || !scale || !span || isShownRaw(scale.percentKind)
        ? UNKNOWN
        : span.percent.toFixed(1);
    return [
      [plotTopic(garden.id, id, 'percent'), percent],
      [plotTopic(garden.id, id, 'unit'), scale ? percentUnit(scale.percentKind) : UNKNOWN],
      [plotTopic(garden.id, id, 'word'), stateWord(view.state, view.words)],
      [plotTopic(garden.id, id, 'lamp'), signals[id]?.state ?? UNKNOWN],
    ];
  });
}
