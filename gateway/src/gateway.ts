/** The gateway without its doors: where reports lie, who may send them, and what boards are told. HTTP and MQTT are put in front of it. */
import type { z } from '@plain-trowel/core/quantity/schema';
import { Counter, Gauge, Registry } from 'prom-client';
import { FarReadings } from './boards/far.ts';
import { Intake, type Heard } from './boards/intake.ts';
import { Keys } from './boards/keys.ts';
import { Orders } from './boards/orders.ts';
import { BoardSettings } from './boards/settings.ts';
import { PublishedGardens } from './gardens/published.ts';
import { KeptTable } from './mailbox/keptTable.ts';
import { Mailbox } from './mailbox/mailbox.ts';
import { forgetStarts, tidy, type Keeping } from './mailbox/retention.ts';
import { rescueSchema } from './mailbox/rescue.ts';
import { openStore } from './mailbox/store.ts';
import { Owner } from './owner/owner.ts';
import { Outbox, type Send } from './telling/outbox.ts';
import { sendBy } from './telling/post.ts';
import { Teller } from './telling/teller.ts';
import { KeptWays } from './telling/ways.ts';

export type Gateway = {
  readonly mailbox: Mailbox;
  readonly keys: Keys;
  readonly orders: Orders;
  readonly settings: BoardSettings;
  readonly gardens: PublishedGardens;
  readonly owner: Owner;
  readonly intake: Intake;
  readonly ways: KeptWays;
  readonly outbox: Outbox;
  readonly teller: Teller;
  /** Sends a letter at once, past the outbox. */
  readonly send: Send;
  readonly metrics: Registry;
  /** When its store was found damaged, and what was done. */
  readonly rescues: KeptTable<z.infer<typeof rescueSchema>>;
  readonly noteHeard: (outcome: Heard['kind'] | 'no-key') => void;
  readonly nowMs: () => number;
  /** Drops what may go, ends what is over. */
  readonly tidy: () => Promise<void>;
  readonly close: () => Promise<void>;
};

const KEEPING: Keeping = { fetchedDays: 30, unfetchedDays: 400 };
const TIDY_EVERY_MS = 60_000;
const LOOK_EVERY_MS = 1000;
const FORGET_EVERY_MS = 3_600_000;

/** @param folder where it keeps what it has @param nowMs the clock that counts, ms since 1970 */
export function openGateway(
  folder: string,
  limitBytes: number,
  nowMs: () => number = () => Date.now(),
): Gateway {
  const store = openStore(folder);
  const mailbox = new Mailbox(store, limitBytes);
  const keys = new Keys(store);
  const orders = new Orders(store);
  const settings = new BoardSettings(store);
  const gardens = new PublishedGardens(store);
  const owner = new Owner(store);
  const metrics = new Registry();
  const reports = new Counter({
    name: 'trowel_reports_total',
    help: 'Reports of boards, by what became of them',
    labelNames: ['outcome'],
    registers: [metrics],
  });
  const gauge = (name: string, help: string, read: () => number) =>
    new Gauge({
      name,
      help,
      registers: [metrics],
      collect() {
        this.set(read());
      },
    });
  gauge('trowel_mailbox_bytes', 'What the entries of all gardens take', () => mailbox.bytes());
  gauge('trowel_mailbox_limit_bytes', 'Room for them', () => mailbox.limit);
  gauge('trowel_memory_bytes', 'Memory of this process, pages of its mailbox among it', () =>
    process.memoryUsage.rss(),
  );
  gauge('trowel_heap_bytes', 'Of it what is no file that is mapped', () => {
    const { heapUsed, external } = process.memoryUsage();
    return heapUsed + external;
  });
  gauge('trowel_uptime_seconds', 'Since this process started', () => process.uptime());
  const letters = new Counter({
    name: 'trowel_letters_total',
    help: 'Tries to send a letter, by way and by what became of them',
    labelNames: ['way', 'outcome'],
    registers: [metrics],
  });
  const ways = new KeptWays(store);
  const send = sendBy(ways);
  const outbox = new Outbox(store, send, (way, outcome) => letters.inc({ way, outcome }));
  const teller = new Teller({ mailbox, gardens, keys, ways, outbox, nowMs });
  let forgotMs = -Infinity;
  const tidyAll = async () => {
    await tidy(mailbox, KEEPING, nowMs());
    if (nowMs() - forgotMs > FORGET_EVERY_MS) {
      forgotMs = nowMs();
      await forgetStarts(mailbox, nowMs());
    }
    await orders.tidy(nowMs());
    await owner.tidy(nowMs());
    await teller.tidy(nowMs());
  };
  const timer = setInterval(() => void tidyAll().catch(() => undefined), TIDY_EVERY_MS);
  timer.unref();
  // Without room on the disk nothing is lost: what is due stays due.
  const lookTimer = setInterval(() => void teller.step().catch(() => undefined), LOOK_EVERY_MS);
  lookTimer.unref();
  return {
    mailbox,
    keys,
    orders,
    settings,
    gardens,
    owner,
    intake: new Intake(mailbox, gardens, orders, settings, new FarReadings(gardens, () => teller), nowMs),
    ways,
    outbox,
    teller,
    send,
    metrics,
    rescues: new KeptTable(store, 'rescue', rescueSchema),
    noteHeard: (outcome) => reports.inc({ outcome }),
    nowMs,
    tidy: tidyAll,
    close: async () => {
      clearInterval(timer);
      clearInterval(lookTimer);
      await teller.close();
      await outbox.close();
      await mailbox.close();
    },
  };
}
