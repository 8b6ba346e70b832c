/** What an open sheet costs: the sample garden's boards at sixty times their pace, one sheet after the other. Budget: 8 % of one core, no task over 50 ms. */
import type { Browser, CDPSession } from '@playwright/test';

const SHEETS = ['Readout', 'Calibrate', 'Dose', 'Limits', 'Log', 'Parts', 'Wiring'] as const;
const WATCHED_S = 8;

/** Seconds that the page's main thread has worked since the session began. */
async function workedS(session: CDPSession): Promise<number> {
  const { metrics } = await session.send('Performance.getMetrics');
  return metrics.find((one) => one.name === 'TaskDuration')?.value ?? Number.NaN;
}

export async function benchBudget(browser: Browser, address: string): Promise<void> {
  const context = await browser.newContext({
    serviceWorkers: 'block',
    viewport: { width: 1280, height: 800 },
  });
  const page = await context.newPage();
  await page.addInitScript(() => {
    const tasks: number[] = [];
    Object.assign(globalThis, { longTasks: tasks });
    new PerformanceObserver((list) => {
      for (const entry of list.getEntries()) tasks.push(entry.duration);
    }).observe({ type: 'longtask' });
  });
  await page.goto(`${address}/sample`);
  await page.waitForURL(/\/bench\/readout/);
  await page.getByRole('button', { name: /^Reading now/ }).waitFor();
  await page.getByRole('group', { name: 'Clock' }).getByText('×60', { exact: true }).click();
  const session = await context.newCDPSession(page);
  await session.send('Performance.enable');
  console.log(
    `An open sheet, boards at ×60, ${WATCHED_S} s each (budget: 8 % of one core, no task over 50 ms)`,
  );
  for (const name of SHEETS) {
    await page.getByRole('navigation', { name: 'Stations' }).getByRole('link', { name, exact: true }).click();
    // Opening it is not what is measured here.
    await page.waitForTimeout(2000);
    await page.evaluate('longTasks.length = 0');
    const before = await workedS(session);
    await page.waitForTimeout(WATCHED_S * 1000);
    const worked = (await workedS(session)) - before;
    const tasks = await page.evaluate<number[]>('longTasks');
    console.log(
      `  ${name.padEnd(12)} ${((100 * worked) / WATCHED_S).toFixed(1).padStart(5)} % of one core, ${tasks.length} tasks over 50 ms${tasks.length > 0 ? `, the longest ${Math.max(...tasks).toFixed(0)} ms` : ''}`,
    );
  }
  await context.close();
}
