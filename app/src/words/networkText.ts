import type { Standing } from '@plain-trowel/core/protocol/feed';
import { formatDuration, formatNumber } from '@plain-trowel/core/quantity/format';
import type { GatewayIssue } from '../links/gatewayClient.ts';
import { dayTime } from '@plain-trowel/core/quantity/timeText';

/** Why the gateway could not be asked, and what to do. */
export function gatewayIssueText(issue: GatewayIssue): string {
  switch (issue.kind) {
    case 'no-answer':
      return 'The gateway does not answer. Check that it is running on its machine; boards keep what they have until it is back.';
    case 'no-gateway':
      return 'This page does not come from a gateway, so no board can report to it. Run npm start on a machine that stays on, and open the page from there.';
    case 'passphrase':
      return 'The gateway asks for its passphrase.';
    case 'refused':
      return issue.text;
  }
}

/** How long ago a board was heard. */
export function heardText(heard: { readonly atMs: number } | null, nowMs: number): string {
  if (heard === null) return 'nothing yet';
  const ageS = Math.max(0, Math.round((nowMs - heard.atMs) / 1000));
  return ageS < 2 ? 'just now' : `${formatDuration(ageS)} ago`;
}

/** The panel's own sentence: which boards report. */
export function networkHeadline({ boards, nowMs }: Standing, nameOf: (boardId: string) => string): string {
  if (boards.length === 0) return 'No board of this garden may report yet: make the first one a key.';
  const heard = boards.flatMap(({ boardId, heard: last }) => (last ? [{ boardId, ...last }] : []));
  const [newest] = heard.sort((a, b) => b.atMs - a.atMs);
  if (!newest) return `${boardsText(boards.length)} may report; none has yet.`;
  const latest = `${nameOf(newest.boardId)}, ${heardText(newest, nowMs)}`;
  return boards.length === 1
    ? `Latest report: ${latest}.`
    : `${heard.length} of ${boardsText(boards.length)} ${heard.length === 1 ? 'has' : 'have'} reported, the latest ${latest}.`;
}

const boardsText = (count: number): string => (count === 1 ? '1 board' : `${count} boards`);

const MB = 1e6;
/** How much lies at the gateway, and what is wrong there. */
export function mailboxText({ mailbox, usedBytes, limitBytes }: Standing): string {
  const waiting = mailbox.newest - mailbox.fetchedTo;
  const room = `${formatNumber(usedBytes / MB, 1)} of ${formatNumber(limitBytes / MB)} MB are used`;
  if (mailbox.newest === 0)
    return `The mailbox is empty; ${formatNumber(limitBytes / MB)} MB are set aside for it.`;
  return mailbox.apps.length === 0
    ? `${formatNumber(mailbox.newest)} reports have come and no browser has fetched any; ${room}.`
    : `${formatNumber(mailbox.newest)} reports have come; ${waiting === 0 ? 'every browser that listens has all of them' : `${formatNumber(waiting)} wait for a browser that has not listened since`}; ${room}.`;
}

/** From this share of its room on the mailbox is nearly full. */
const NEARLY_FULL = 0.9;

/** What must be known about the mailbox before it costs readings; none while all is well. */
export function mailboxWarnings(
  { mailbox, usedBytes, limitBytes, rescues }: Standing,
  timeZone: string,
): readonly string[] {
  return [
    ...(usedBytes > NEARLY_FULL * limitBytes
      ? [
          'The mailbox is nearly full. Listen with every browser that watches this garden, or give it more room (--keep-mb): when it is full, boards are refused and keep what they have.',
        ]
      : []),
    ...(mailbox.warnedMs === null
      ? []
      : [
          `Reports that nobody has fetched are more than a year old. A week after ${dayTime(mailbox.warnedMs, timeZone)} the oldest of them go. Listen now to keep them.`,
        ]),
    ...rescues.map(
      ({ atMs, entries, aside }) =>
        `On ${dayTime(atMs, timeZone)} the mailbox was damaged. ${formatNumber(entries)} reports could be read and are there again; the broken file lies in ${aside}. Boards need new keys.`,
    ),
  ];
}
