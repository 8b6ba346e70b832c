/** How many boards the gateway bears: acknowledgements after the disk over HTTP and MQTT. */
import { end, startGateway } from './started.ts';
import { killAgainAndAgain } from './kills.ts';
import { overHttp, overMqtt, type Board, type Load } from './load.ts';

const shown = ({ acknowledged, refused, perS, medianMs, p99Ms, worstMs }: Load): string =>
  `${Math.round(perS)} a second, median ${medianMs.toFixed(1)} ms, p99 ${p99Ms.toFixed(1)} ms, worst ${worstMs.toFixed(0)} ms (${acknowledged} acknowledged, ${refused} refused)`;

const GARDEN = 'bench';
const BOARDS = 500;
const ROUNDS = 50;
const MINUTES = 5;

export async function benchGateway(forMs = 10_000): Promise<void> {
  const gateway = await startGateway();
  const boards: Board[] = [];
  for (let at = 0; at < BOARDS; at += 1)
    boards.push({ id: `b${at}`, key: await gateway.key(GARDEN, `b${at}`) });
  console.log(
    'gateway: posts of one reading, 500 boards, acknowledged after the disk (asked: 3000 a second, p99 below 60 ms)',
  );
  console.log(`  ${shown(await overHttp(gateway.address, boards, 64, forMs))}`);
  console.log('gateway: MQTT QoS 1, 500 boards connected (asked: 10000 readings a second)');
  for (const readings of [1, 4, 10]) {
    const load = await overMqtt(gateway.mqttPort, GARDEN, boards, readings, forMs);
    console.log(
      `  reports of ${readings}: ${Math.round(load.perS * readings)} readings a second; reports ${shown(load)}`,
    );
  }
  await end(gateway.child);
}

/** An hour of five hundred boards that report each ten seconds, in five minutes. */
export async function benchHour(): Promise<void> {
  const gateway = await startGateway();
  const boards: Board[] = [];
  for (let at = 0; at < BOARDS; at += 1)
    boards.push({ id: `b${at}`, key: await gateway.key(GARDEN, `b${at}`) });
  console.log(
    `gateway: an hour of ${BOARDS} boards, a report each ten seconds, in ${MINUTES} minutes (asked: flat memory)`,
  );
  const perS = (BOARDS * 360) / (MINUTES * 60);
  for (let minute = 1; minute <= MINUTES; minute += 1) {
    const load = await overHttp(gateway.address, boards, 64, 60_000, perS);
    const { all, heap } = await gateway.memory();
    console.log(
      `  minute ${minute}: ${shown(load)}; memory ${(heap / 1e6).toFixed(0)} MB, with mapped pages of the mailbox ${(all / 1e6).toFixed(0)} MB`,
    );
  }
  await end(gateway.child);
}

export async function benchKills(): Promise<void> {
  const { rounds, acknowledged, kept, lost, doubled } = await killAgainAndAgain(ROUNDS);
  console.log(
    `gateway: killed ${rounds} times under load: ${acknowledged} reports acknowledged, ${kept} kept, ${lost} lost, ${doubled} doubled (asked: 0, 0)`,
  );
}
