import { existsSync, mkdirSync } from 'node:fs';
import http from 'node:http';
import https from 'node:https';
import { join } from 'node:path';
import { Writable } from 'node:stream';
import { createInterface } from 'node:readline/promises';
import pino from 'pino';
import { openGateway, type Gateway } from './gateway.ts';
import { isLoopback, networkAddresses, ownNames, type Reach } from './hosts.ts';
import { holdFolder } from './mailbox/onlyOne.ts';
import { rescueIfDamaged } from './mailbox/rescue.ts';
import { createBroker } from './mqtt/broker.ts';
import { joinBroker } from './mqtt/outsideBroker.ts';
import { readOptions, type Options } from './options.ts';
import { LEAST_LETTERS } from './owner/owner.ts';
import { createListener } from './server.ts';
import { readTls } from './tls.ts';

const root = join(import.meta.dirname, '../..');
const log = pino({ level: process.env.TROWEL_LOG ?? 'info', base: null });

/** Ends with one sentence for the person at the terminal. */
function stop(sentence: string, code: number): never {
  console.error(sentence);
  process.exit(code);
}

const options = readOptions(process.argv.slice(2), process.env, root);
if (!options.ok) stop(options.issue, 2);
const appFolder = join(root, 'app/dist');
if (!existsSync(join(appFolder, 'index.html')))
  stop('The app has not been built yet. Run "npm run demo", which builds it first.', 2);

mkdirSync(options.value.data, { recursive: true, mode: 0o700 });
const held = await holdFolder(options.value.data);
if (!held)
  stop(
    `Another gateway is using ${options.value.data}. Stop that one, or choose another folder: --data FOLDER`,
    1,
  );
const rescue = await rescueIfDamaged(options.value.data, Date.now());
const gateway = openGateway(options.value.data, options.value.keepMb * 1e6);
if (rescue) {
  await gateway.rescues.put(String(Date.now()), { ...rescue, atMs: Date.now() });
  log.error({ aside: rescue.aside, entries: rescue.entries }, 'the mailbox was damaged');
  console.error(
    `The mailbox was damaged. ${rescue.entries} reports could be read and are there again; keys, orders and the passphrase must be made anew. The broken file lies in ${rescue.aside}.`,
  );
}
if (options.value.setsPassphrase) await setPassphrase(gateway);
else await serve(gateway, options.value);

/** Asks for the passphrase of the gateway, and ends. What is typed is not shown. */
async function setPassphrase({ owner, close }: Gateway): Promise<void> {
  process.stdout.write(`New passphrase, ${LEAST_LETTERS} letters or more (it is not shown): `);
  const unseen = new Writable({ write: (_chunk, _encoding, done) => done() });
  const typed = createInterface({ input: process.stdin, output: unseen, terminal: process.stdin.isTTY });
  const words = (await typed.question('')).trim();
  typed.close();
  const isLongEnough = words.length >= LEAST_LETTERS;
  if (isLongEnough) await owner.setPassphrase(words);
  await close();
  if (!isLongEnough)
    stop(
      `\nThat is too short: ${LEAST_LETTERS} letters or more. Several words are best. Nothing was changed.`,
      2,
    );
  console.log('\nThe passphrase is set. Whoever was let in with the old one must enter it anew.');
  process.exit(0);
}

async function serve(
  gateway: Gateway,
  { port, host, name, mqttPort, tls, broker: brokerUrl, takes }: Options,
): Promise<void> {
  // Whoever gives it a name lets others in by it, through a proxy of theirs.
  const isOpen = !isLoopback(host) || name !== null;
  if (isOpen && !gateway.owner.hasPassphrase)
    stop(
      'Others in your network would reach this gateway, so it wants a passphrase first: npm start -- --set-passphrase',
      2,
    );
  const certified = tls && readTls(tls, Date.now());
  if (certified && !certified.ok) stop(certified.issue, 2);
  const isSecure = certified !== null;
  const listener = createListener(appFolder, gateway, {
    names: ownNames(host, name),
    isOpen,
    mqttPort,
    isSecure,
  });
  const server = certified ? https.createServer(certified.value, listener) : http.createServer(listener);
  // A board that says nothing more, or all too slowly, does not hold a connection.
  server.requestTimeout = 30_000;
  server.headersTimeout = 15_000;
  // One that reports as often as it is asked keeps its connection.
  server.keepAliveTimeout = 30_000;
  const failed = (which: string, flag: string, wanted: number) => (error: NodeJS.ErrnoException) =>
    stop(
      error.code === 'EADDRINUSE'
        ? `Port ${wanted} is in use. Stop the other program, or choose another port: ${flag} ${wanted + 2}`
        : `${which} could not start: ${error.message}`,
      1,
    );
  server.once('error', failed('The server', '--port', port));
  await new Promise<void>((listening) => server.listen(port, host, listening));
  const broker = mqttPort > 0 ? await createBroker(gateway) : null;
  broker?.server.once('error', failed('The broker', '--mqtt-port', mqttPort));
  if (broker) await new Promise<void>((listening) => broker.server.listen(mqttPort, host, listening));
  const outside = brokerUrl === null ? null : joinBroker(gateway, brokerUrl, takes);
  announce({ port, mqttPort, isOpen, isSecure });
  log.info({ port, host, mqttPort, isOpen, isSecure }, 'ready');
  let isEnding = false;
  for (const signal of ['SIGINT', 'SIGTERM'] as const)
    process.on(signal, () => {
      if (isEnding) return;
      isEnding = true;
      void (async () => {
        server.closeAllConnections();
        server.close();
        await broker?.close();
        await outside?.close();
        await gateway.close();
        log.info('ended');
        process.exit(0);
      })();
    });
}

type Announced = Pick<Options, 'port' | 'mqttPort'> & Pick<Reach, 'isOpen' | 'isSecure'>;
function announce({ port, mqttPort, isOpen, isSecure }: Announced): void {
  const scheme = isSecure ? 'https' : 'http';
  const address = `${scheme}://127.0.0.1:${port}`;
  const lines = [
    'Plain Trowel is ready.',
    `  Sample garden:    ${address}/sample`,
    `  Your own gardens: ${address}/`,
    ...(isOpen ? networkAddresses().map((one) => `  In your network:  ${scheme}://${one}:${port}/`) : []),
    ...(mqttPort > 0 ? [`  Boards over MQTT: port ${mqttPort}`] : []),
    'Stop it with Ctrl+C.',
  ];
  console.log(lines.join('\n'));
}
