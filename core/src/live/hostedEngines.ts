import { allAnswers, type Answers } from '../control/host/answers.ts';
import { decidesNothing, type BoardEngine } from '../control/host/boardEngine.ts';
import { stepHost, switchOn, type Hosted } from '../control/host/engineHost.ts';
import type { Senses } from '../control/host/senses.ts';
import { engineOf } from '../garden/bind/engineOf.ts';
import type { Garden } from '../garden/document/schema.ts';
import { sensesOf } from '../garden/bind/sensesOf.ts';

/**
 * What the rules would answer to readings of a real board or of a log. The same host as on a board, running beside the readings; it switches nothing, because the board's own program does that.
 */
export class HostedEngines {
  private hosts: Readonly<Record<string, Hosted>> = {};
  private made: { garden: Garden; engines: readonly BoardEngine[]; senses: Senses } | null = null;

  /** One step of every board that has a water line. @param newest where the newest readings are @param isMoving what the watch knows not to have come to rest */
  step(
    garden: Garden,
    newest: Senses['newest'],
    nowMs: number,
    isMoving: (channelId: string) => boolean = () => false,
  ): Answers {
    const { engines, senses } = this.madeFor(garden, newest, isMoving);
    this.hosts = Object.fromEntries(
      engines.map((engine) => {
        const before = this.hosts[engine.boardId] ?? switchOn(engine, {}, nowMs);
        return [engine.boardId, stepHost(before, engine, senses, nowMs).hosted];
      }),
    );
    return allAnswers(Object.values(this.hosts));
  }

  /** Settings are made again when the document has changed. */
  private madeFor(garden: Garden, newest: Senses['newest'], isMoving: (channelId: string) => boolean) {
    if (this.made?.garden !== garden)
      this.made = {
        garden,
        engines: garden.boards
          .map((board) => engineOf(garden, board.id))
          .filter((one) => !decidesNothing(one)),
        senses: sensesOf(garden, () => null),
      };
    return { engines: this.made.engines, senses: { ...this.made.senses, newest, isMoving } };
  }
}
