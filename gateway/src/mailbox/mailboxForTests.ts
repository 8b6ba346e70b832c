import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Report } from '@plain-trowel/core/protocol/report';
import { Mailbox } from './mailbox.ts';
import { openStore } from './store.ts';

export const newFolder = (): string => mkdtempSync(join(tmpdir(), 'trowel-mailbox-'));

export const newMailbox = (limitBytes = 1e9, folder = newFolder()): Mailbox =>
  new Mailbox(openStore(folder), limitBytes, 0);

export const report = (seq: number, more: Partial<Report> = {}): Report => ({
  board: 'roof',
  boot: 12,
  seq,
  upS: 60 * seq,
  readings: [{ n: 'c2', v: 1500 + seq, agoS: 3 }],
  said: [],
  orders: [],
  ...more,
});

/** Noon of a day; ms since 1970. */
export const NOON = Date.UTC(2026, 10, 28, 12);
