// What a fresh clone needs before anything else runs: the right Node, and the packages of the lock file. Node's own modules only.
import { execFileSync, spawn, spawnSync } from 'node:child_process';
import { existsSync, statSync } from 'node:fs';
import { createServer } from 'node:net';
import { join } from 'node:path';

export const root = join(import.meta.dirname, '..');
const LEAST_NODE = [20, 19];

/** One clear sentence for a Node that is too old; null for one that will do. */
export function nodeProblem(version) {
  const [major = 0, minor = 0] = version.split('.').map(Number);
  const enough = major > LEAST_NODE[0] || (major === LEAST_NODE[0] && minor >= LEAST_NODE[1]);
  return enough
    ? null
    : `Plain Trowel needs Node ${LEAST_NODE.join('.')} or newer; this is Node ${version}. Install a newer Node and run the command again.`;
}

/** True when the packages are missing or older than the lock file. */
export function packagesAreStale(folder) {
  const installed = join(folder, 'node_modules/.package-lock.json');
  return (
    !existsSync(installed) ||
    statSync(installed).mtimeMs < statSync(join(folder, 'package-lock.json')).mtimeMs
  );
}

export function ready() {
  const problem = nodeProblem(process.versions.node);
  if (problem) stop(problem);
  if (!packagesAreStale(root)) return;
  console.log('Installing the packages of the lock file (about a minute) …');
  const done = spawnSync('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error'], {
    cwd: root,
    stdio: ['ignore', 'inherit', 'inherit'],
  });
  if (done.status !== 0)
    stop(
      'The packages could not be installed. Check the network connection to the package registry and run the command again.',
    );
}

function stop(sentence) {
  console.error(sentence);
  process.exit(2);
}

/** Path of a program of Debian's; installs its package by apt when it is missing and this user may. */
function debians(paths, name, what, mayInstall) {
  const path = paths.find((place) => existsSync(place));
  if (path) return path;
  if (!mayInstall || process.getuid?.() !== 0 || !existsSync('/usr/bin/apt-get')) return null;
  console.log(`Installing ${what} …`);
  const quiet = { stdio: 'ignore', env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' } };
  spawnSync('apt-get', ['update', '-qq'], quiet);
  spawnSync('apt-get', ['install', '-y', '-qq', name], quiet);
  return paths.find((place) => existsSync(place)) ?? null;
}

export const chromium = ({ mayInstall }) =>
  debians(
    ['/usr/bin/chromium', '/usr/bin/chromium-browser'],
    'chromium',
    'Chromium for the browser tests',
    mayInstall,
  );

/** The compiler that the boards' programs are proved with. */
export const compiler = ({ mayInstall }) =>
  debians(['/usr/bin/g++'], 'g++', 'g++ for the tests of the boards’ programs', mayInstall);

/** What shows that an acknowledged report is on disk. */
export const tracer = ({ mayInstall }) =>
  debians(['/usr/bin/strace'], 'strace', 'strace for the tests of the gateway’s store', mayInstall);

/** Somebody else's broker, and its clients, that the gateway is tried with. */
export const broker = ({ mayInstall }) =>
  debians(['/usr/sbin/mosquitto'], 'mosquitto', 'a broker for the tests of the gateway', mayInstall) &&
  debians(['/usr/bin/mosquitto_pub'], 'mosquitto-clients', 'its clients', mayInstall);

export const NO_CHROMIUM =
  'The browser tests need Chromium at /usr/bin/chromium. Install it with: apt-get install chromium';

export const bin = (name) => join(root, 'node_modules/.bin', name);

export function build() {
  execFileSync(bin('vite'), ['build', 'app', '--logLevel', 'warn'], {
    cwd: root,
    stdio: ['ignore', 'inherit', 'inherit'],
  });
}

/** The port of `--port N` or `--port=N`, or of PORT in the environment, or the usual one; null for what is no port. */
export function portOf(args, usual, environment = process.env) {
  const at = args.findIndex((arg) => arg === '--port' || arg.startsWith('--port='));
  const given = at < 0 ? environment.PORT : (args[at].split('=')[1] ?? args[at + 1]);
  if (at < 0 && (given === undefined || given === '')) return usual;
  const port = Number(given);
  return given !== undefined && given !== '' && Number.isInteger(port) && port > 0 && port < 65_536
    ? port
    : null;
}

/** Whether nobody listens on a port of this machine. */
export const portIsFree = (port) =>
  new Promise((tell) => {
    const probe = createServer();
    probe.once('error', () => tell(false));
    probe.listen(port, '127.0.0.1', () => probe.close(() => tell(true)));
  });

/** A port that nobody listens on right now. */
export const freePort = () =>
  new Promise((tell, fail) => {
    const probe = createServer();
    probe.once('error', fail);
    probe.listen(0, '127.0.0.1', () => {
      const { port } = probe.address();
      probe.close(() => tell(port));
    });
  });

/** The port that was asked for; ends the command with one sentence when it cannot be had. */
export async function wantedPort(command, args, usual) {
  const port = portOf(args, usual);
  if (port === null)
    stop(`That is not a port. Give a whole number from 1 to 65535: npm run ${command} -- --port ${usual}`);
  if (!(await portIsFree(port)))
    stop(
      `Port ${port} is in use. Stop the other program, or choose another port: npm run ${command} -- --port ${port + 1}`,
    );
  return port;
}

/**
 * Runs a command that does not outlive this one: it gets a group of its own, and whatever ends this process (a signal, or its parent gone) ends the whole
 * group. A small watcher beside it looks after the case that nothing here can run any more.
 */
export function tied(command, args, options = {}) {
  const child = spawn(process.execPath, [join(import.meta.dirname, 'tied.mjs'), command, ...args], {
    cwd: root,
    ...options,
    detached: true,
  });
  children.add(child);
  child.once('close', () => children.delete(child));
  return child;
}

const children = new Set();
const parent = process.ppid;

/** Ends every tied command, with all that it started. */
export function endAll() {
  for (const child of children)
    try {
      process.kill(-child.pid, 'SIGTERM');
    } catch {
      // It has ended by itself.
    }
}

/** From now on this process ends with its parent, and takes its tied commands along. */
export function endWithParent() {
  for (const [signal, code] of [
    ['SIGINT', 130],
    ['SIGTERM', 143],
    ['SIGHUP', 129],
  ])
    process.once(signal, () => {
      endAll();
      process.exit(code);
    });
  setInterval(() => {
    if (process.ppid === parent) return;
    endAll();
    process.exit(129);
  }, 500).unref();
}
