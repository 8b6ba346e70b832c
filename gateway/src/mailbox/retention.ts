/**
 * What leaves the mailbox, and when. What every watching app has fetched goes after a while, or sooner when room runs out. What nobody has fetched goes only when it is
 * very old, and only after that has been said for a week; room that runs out refuses boards before it takes anything of it.
 */
import { entryFrom, type Mailbox } from './mailbox.ts';

export type Keeping = {
  /** Fetched entries stay for so many days. */
  readonly fetchedDays: number;
  /** Entries that nobody has fetched stay for so many days. */
  readonly unfetchedDays: number;
};

const DAY_MS = 86_400_000;
/** For how long it is said before anything unfetched goes. */
const WARNING_MS = 7 * DAY_MS;
/** From this share of the room on, fetched entries go whatever their age, until they take the second share. */
const TIGHT = 0.9;
const ROOMY = 0.8;
/** Entries of one transaction: boards need not wait for long. */
const AT_ONCE = 500;

/** Drops what may go. @returns how many entries went */
export async function tidy(mailbox: Mailbox, keeping: Keeping, nowMs: number): Promise<number> {
  let went = 0;
  for (const gardenId of mailbox.gardenIds()) {
    const { fetchedTo, warnedMs } = mailbox.holding(gardenId, nowMs);
    const mayGoUnfetched = warnedMs !== null && nowMs - warnedMs >= WARNING_MS;
    const isOld = (n: number, receivedMs: number): boolean => {
      const ageMs = nowMs - receivedMs;
      if (n <= fetchedTo) return ageMs > keeping.fetchedDays * DAY_MS;
      return mayGoUnfetched && ageMs > keeping.unfetchedDays * DAY_MS;
    };
    went += await drop(mailbox, gardenId, isOld);
    if (mailbox.bytes() > TIGHT * mailbox.limit)
      went += await drop(mailbox, gardenId, (n) => n <= fetchedTo && mailbox.bytes() > ROOMY * mailbox.limit);
    await warn(mailbox, gardenId, keeping, nowMs);
  }
  return went;
}

/** Drops the oldest entries for as long as they may go. */
async function drop(
  mailbox: Mailbox,
  gardenId: string,
  mayGo: (n: number, receivedMs: number) => boolean,
): Promise<number> {
  const { log, had, boots, gardens } = mailbox.store;
  for (let went = 0; ;) {
    const now = await mailbox.store.commits.do(() => {
      let count = 0;
      let freed = 0;
      for (const { key, value } of [
        ...log.getRange({
          start: [gardenId, 0],
          end: [gardenId, Number.MAX_SAFE_INTEGER],
          limit: AT_ONCE,
        }),
      ]) {
        const entry = entryFrom(value);
        if (entry && !mayGo(key[1], entry.receivedMs)) break;
        log.removeSync(key);
        count += 1;
        freed += Buffer.byteLength(value);
        if (!entry) continue;
        const { boardId, boot, run, seq } = entry;
        had.removeSync([gardenId, boardId, boot, run, seq]);
        const state = boots.get([gardenId, boardId, boot]);
        if (state?.run === run)
          boots.putSync([gardenId, boardId, boot], {
            ...state,
            droppedTo: Math.max(state.droppedTo ?? 0, seq),
          });
      }
      const garden = gardens.get(gardenId);
      if (garden && count > 0) gardens.putSync(gardenId, { ...garden, bytes: garden.bytes - freed });
      return count;
    });
    mailbox.dropped();
    went += now;
    if (now < AT_ONCE) return went;
  }
}

/** Starts of boards are remembered for so long after the last of their reports may have come: a board tells nothing that is older than a month. */
const STARTS_DAYS = 62;

/**
 * Forgets starts of boards of which nothing lies in the mailbox any more and nothing can come any more, so that a board that restarts all day does not fill the disk. The latest start of a
 * board stays: by it the board is known to have reported at all.
 * @returns how many were forgotten
 */
export async function forgetStarts({ store }: Mailbox, nowMs: number): Promise<number> {
  const { had, boots, commits } = store;
  const latest = new Map<string, number>();
  const boardOf = ([gardenId, boardId]: readonly [string, string, number]) => `${gardenId} ${boardId}`;
  for (const { key, value } of boots.getRange({}))
    latest.set(boardOf(key), Math.max(latest.get(boardOf(key)) ?? -Infinity, value.bootAtMs));
  const old = [...boots.getRange({})].filter(
    ({ key, value }) =>
      nowMs - value.bootAtMs > STARTS_DAYS * DAY_MS && value.bootAtMs !== latest.get(boardOf(key)),
  );
  let went = 0;
  for (let at = 0; at < old.length; at += AT_ONCE)
    went += await commits.do(() => {
      let count = 0;
      for (const { key } of old.slice(at, at + AT_ONCE)) {
        const [left] = had.getKeys({ start: [...key, 0, 0], end: [...key, Infinity, Infinity], limit: 1 });
        if (left === undefined && boots.removeSync(key)) count += 1;
      }
      return count;
    });
  return went;
}

/** Says that unfetched entries will go, from a week before the oldest of them may; takes it back when they have been fetched. */
async function warn(mailbox: Mailbox, gardenId: string, keeping: Keeping, nowMs: number): Promise<void> {
  const { gardens } = mailbox.store;
  const { fetchedTo } = mailbox.holding(gardenId, nowMs);
  const [oldest] = mailbox.after(gardenId, fetchedTo, 1);
  const isDue =
    oldest !== undefined && nowMs - oldest.receivedMs > keeping.unfetchedDays * DAY_MS - WARNING_MS;
  await mailbox.store.commits.do(() => {
    const garden = gardens.get(gardenId);
    if (!garden || (garden.warnedMs !== null) === isDue) return;
    gardens.putSync(gardenId, { ...garden, warnedMs: isDue ? nowMs : null });
  });
}
