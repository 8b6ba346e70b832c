// Runs one command and ends it, with everything that it started, when the process that asked for it is gone: also when that one was killed and could say
// nothing. Started by `tied` of ready.mjs as the head of a process group of its own.
import { spawn } from 'node:child_process';

const [command, ...args] = process.argv.slice(2);
const parent = process.ppid;
const child = spawn(command, args, { stdio: 'inherit' });
const endGroup = () => {
  try {
    process.kill(-process.pid, 'SIGKILL');
  } catch {
    process.exit(1);
  }
};
setInterval(() => {
  if (process.ppid !== parent) endGroup();
}, 300).unref();
for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'])
  process.on(signal, () => {
    // What it was told to end gets a moment to do so by itself.
    child.kill(signal);
    setTimeout(endGroup, 1500);
  });
child.on('error', () => process.exit(127));
child.on('exit', (code, signal) => process.exit(signal ? 1 : (code ?? 1)));
