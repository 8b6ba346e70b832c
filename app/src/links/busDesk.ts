/**
 * The bus desk: a master that reads probes, looks for them, changes an address, and counts errors. Long work reports its progress and can be stopped.
 * What it reads may be handed on as lines, named as a board would name them.
 */
import { LOWEST_ADDRESS, HIGHEST_ADDRESS, type Request } from '@plain-trowel/core/bus/frame';
import type { BusSpeed } from '@plain-trowel/core/bus/timing';
import { planReads, valuesOf, type BusValue, type RegisterMap } from '@plain-trowel/core/bus/registers';
import { busStreamName } from '@plain-trowel/core/garden/edits/bench';
import { fail, ok, type Result } from '@plain-trowel/core/quantity/result';
import { BusLink, type BusPort, type Exchange } from './busLink.ts';

export type BusWork = 'reading' | 'polling' | 'scanning' | 'testing' | 'changing';
type ExchangeIssue = Extract<Exchange['result'], { ok: false }>['issue'];

export type BusSnapshot = {
  /** What it is connected to; null while it is not. */
  readonly label: string | null;
  readonly simulated: boolean;
  /** Bits a second that it is spoken to with. */
  readonly baud: BusSpeed | null;
  readonly working: BusWork | null;
  readonly doneFrac: number;
  readonly last: Exchange | null;
  readonly values: readonly BusValue[];
  readonly valuesAtMs: number | null;
  readonly issue: ExchangeIssue | null;
  /** Addresses that answered, and how far the looking went. */
  readonly found: { readonly addresses: readonly number[]; readonly upTo: number } | null;
  readonly test: {
    readonly reads: number;
    readonly failed: ReadonlyMap<string, number>;
    readonly meanMs: number;
  } | null;
};

const IDLE: BusSnapshot = {
  label: null,
  simulated: false,
  baud: null,
  working: null,
  doneFrac: 0,
  last: null,
  values: [],
  valuesAtMs: null,
  issue: null,
  found: null,
  test: null,
};

export type BusTarget = { readonly address: number; readonly map: RegisterMap };

export class BusDesk {
  private link: BusLink | null = null;
  private snapshot: BusSnapshot = IDLE;
  private stopped = false;
  private readonly listeners = new Set<() => void>();

  constructor(private readonly clocks: { nowMs: () => number; tickMs: () => number }) {}

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };
  readonly getSnapshot = (): BusSnapshot => this.snapshot;

  /** @throws what the port throws when it cannot be opened */
  async connect(port: BusPort, baud: BusSpeed, of: { label: string; simulated: boolean }): Promise<void> {
    await this.disconnect();
    const link = new BusLink(port, baud, this.clocks.tickMs);
    await link.open();
    this.link = link;
    this.set({ ...IDLE, ...of, baud });
  }

  async disconnect(): Promise<void> {
    this.stopped = true;
    await this.link?.close();
    this.link = null;
    this.set(IDLE);
  }

  /** Ends polling, scanning or testing after the question under way. */
  stop(): void {
    this.stopped = true;
  }

  private isStopped(): boolean {
    return this.stopped;
  }

  /** Reads every field of one probe. */
  read(target: BusTarget): Promise<void> {
    return this.work('reading', async () => {
      await this.readOnce(target);
    });
  }

  /**
   * Reads probes over and over until stopped.
   * @param hand takes each round as a line, `b1.moisture=31.4 b1.temperature=18.2`
   */
  poll(
    targets: readonly (BusTarget & { readonly label: string })[],
    everyMs: number,
    hand: (text: string, atMs: number) => void,
  ): Promise<void> {
    return this.work('polling', async () => {
      while (!this.stopped) {
        const beganMs = this.clocks.tickMs();
        for (const target of targets) {
          const read = await this.readOnce(target);
          const pairs = read.ok
            ? read.value.map(
                ({ field, value }) =>
                  `${busStreamName(target.label, field.name)}=${Number(value.toFixed(4))}`,
              )
            : [];
          if (pairs.length > 0) hand(pairs.join(' '), this.clocks.nowMs());
          if (!read.ok && read.issue.kind === 'port-gone') return;
          if (this.isStopped()) return;
        }
        await this.rest(everyMs - (this.clocks.tickMs() - beganMs));
      }
    });
  }

  /** Asks every address for one register. */
  scan(map: RegisterMap): Promise<void> {
    return this.work('scanning', async () => {
      const addresses: number[] = [];
      for (let address = LOWEST_ADDRESS; address <= HIGHEST_ADDRESS && !this.stopped; address += 1) {
        const { result } = await this.ask({
          function: map.readFunction,
          address,
          register: map.fields[0]?.register ?? 0,
          count: 1,
        });
        // A refusal is an answer too; so is an answer that two have spoiled.
        const isThere = result.ok || result.issue.kind === 'exception' || result.issue.kind === 'wrong-crc';
        if (isThere) addresses.push(address);
        this.set({
          found: { addresses: [...addresses], upTo: address },
          doneFrac: address / HIGHEST_ADDRESS,
        });
        if (!result.ok && result.issue.kind === 'port-gone') {
          this.set({ issue: result.issue });
          return;
        }
      }
    });
  }

  /** Gives the one probe on the bus another address, and reads it under the new one. */
  changeAddress(target: BusTarget, to: number): Promise<void> {
    return this.work('changing', async () => {
      const own = target.map.address;
      if (!own) return;
      const at = { address: target.address, register: own.register };
      const { result } = await this.ask(
        own.writeFunction === 6 ? { ...at, function: 6, value: to } : { ...at, function: 16, values: [to] },
      );
      if (!result.ok) {
        this.set({ issue: result.issue });
        return;
      }
      await this.readOnce({ ...target, address: to });
    });
  }

  /** Reads one probe many times and counts what goes wrong. */
  test(target: BusTarget, reads: number): Promise<void> {
    return this.work('testing', async () => {
      const failed = new Map<string, number>();
      const [plan] = planReads(target.map, target.address);
      if (!plan) return;
      let totalMs = 0;
      for (let at = 1; at <= reads && !this.stopped; at += 1) {
        const { result, tookMs } = await this.ask(plan.request);
        totalMs += tookMs;
        if (!result.ok) failed.set(result.issue.kind, (failed.get(result.issue.kind) ?? 0) + 1);
        this.set({
          test: { reads: at, failed: new Map(failed), meanMs: totalMs / at },
          doneFrac: at / reads,
        });
        if (!result.ok && result.issue.kind === 'port-gone') return;
      }
    });
  }

  private async readOnce(target: BusTarget): Promise<Result<readonly BusValue[], ExchangeIssue>> {
    const values: BusValue[] = [];
    for (const plan of planReads(target.map, target.address)) {
      const { result } = await this.ask(plan.request);
      if (!result.ok) {
        this.set({ issue: result.issue });
        return fail(result.issue);
      }
      values.push(...valuesOf(plan, result.value));
    }
    this.set({ values, valuesAtMs: this.clocks.nowMs(), issue: null });
    return ok(values);
  }

  private async ask(request: Request): Promise<Exchange> {
    if (!this.link) throw new Error('the bus desk asks without a link');
    const exchange = await this.link.ask(request);
    this.set({ last: exchange });
    return exchange;
  }

  private async work(kind: BusWork, run: () => Promise<void>): Promise<void> {
    if (!this.link || this.snapshot.working) return;
    const { link } = this;
    this.stopped = false;
    this.set({ working: kind, doneFrac: 0, issue: null });
    await run();
    if (this.link === link) this.set({ working: null });
  }

  private async rest(ms: number): Promise<void> {
    const untilMs = this.clocks.tickMs() + ms;
    while (!this.stopped && this.clocks.tickMs() < untilMs)
      await new Promise((resolve) =>
        setTimeout(resolve, Math.min(100, Math.max(1, untilMs - this.clocks.tickMs()))),
      );
  }

  private set(change: Partial<BusSnapshot>): void {
    this.snapshot = { ...this.snapshot, ...change };
    for (const listener of this.listeners) listener();
  }
}
