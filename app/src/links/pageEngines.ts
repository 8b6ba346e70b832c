import { answersOf, type LineAnswers } from '@plain-trowel/core/control/host/answers';
import type { BoardEngine } from '@plain-trowel/core/control/host/boardEngine';
import { stepHost, switchOn, type Hosted } from '@plain-trowel/core/control/host/engineHost';
import type { Senses } from '@plain-trowel/core/control/host/senses';
import { engineOf } from '@plain-trowel/core/garden/bind/engineOf';
import type { Garden } from '@plain-trowel/core/garden/document/schema';
import { sensesOf } from '@plain-trowel/core/garden/bind/sensesOf';

/**
 * What the rules would answer to readings of a real board or of a log. The same host as on a stand-in, running in the page; it switches nothing, because the
 * board's own program does that.
 */
export class PageEngines {
  private hosts: Readonly<Record<string, Hosted>> = {};
  private made: { garden: Garden; engines: readonly BoardEngine[]; senses: Senses } | null = null;

  /** One step of every board that has a water line. @param newest where the newest readings are */
  step(garden: Garden, newest: Senses['newest'], nowMs: number): LineAnswers {
    const { engines, senses } = this.madeFor(garden, newest);
    this.hosts = Object.fromEntries(
      engines.map((engine) => {
        const before = this.hosts[engine.boardId] ?? switchOn(engine, {}, nowMs);
        return [engine.boardId, stepHost(before, engine, senses, nowMs).hosted];
      }),
    );
    return Object.assign({}, ...Object.values(this.hosts).map(answersOf)) as LineAnswers;
  }

  /** Settings are made again when the document has changed. */
  private madeFor(garden: Garden, newest: Senses['newest']) {
    if (this.made?.garden !== garden)
      this.made = {
        garden,
        engines: garden.boards
          .map((board) => engineOf(garden, board.id))
          .filter((one) => one.lineIds.length > 0),
        senses: sensesOf(garden, () => null),
      };
    return { engines: this.made.engines, senses: { ...this.made.senses, newest } };
  }
}
