// What a fresh clone needs before anything else runs: the right Node, and the packages of the lock file. Node's own modules only.
import { execFileSync, spawnSync } from 'node:child_process';
import { existsSync, statSync } from 'node:fs';
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

/** Path of Debian's Chromium; installs it by apt when it is missing and this user may. */
export function chromium({ mayInstall }) {
  const path = ['/usr/bin/chromium', '/usr/bin/chromium-browser'].find((place) => existsSync(place));
  if (path) return path;
  if (mayInstall && process.getuid?.() === 0 && existsSync('/usr/bin/apt-get')) {
    console.log('Installing Chromium for the browser tests …');
    const quiet = { stdio: 'ignore', env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' } };
    spawnSync('apt-get', ['update', '-qq'], quiet);
    spawnSync('apt-get', ['install', '-y', '-qq', 'chromium'], quiet);
    if (existsSync('/usr/bin/chromium')) return '/usr/bin/chromium';
  }
  return null;
}

export const NO_CHROMIUM =
  'The browser tests need Chromium at /usr/bin/chromium. Install it with: apt-get install chromium';

export const bin = (name) => join(root, 'node_modules/.bin', name);

export function build() {
  execFileSync(bin('vite'), ['build', 'app', '--logLevel', 'warn'], {
    cwd: root,
    stdio: ['ignore', 'inherit', 'inherit'],
  });
}
