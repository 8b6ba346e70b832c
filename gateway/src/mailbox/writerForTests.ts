// Writes reports into a mailbox without end, some at a time, and says the number of each once it is acknowledged: `writerForTests.ts FOLDER FIRST [LANES]`.
import { writeSync } from 'node:fs';
import { newMailbox, NOON, report } from './mailboxForTests.ts';

const [folder = '', first = '0', lanes = '8'] = process.argv.slice(2);
const mailbox = newMailbox(1e9, folder);
let next = Number(first);
const lane = async () => {
  for (;;) {
    const seq = next++;
    await mailbox.put('hare', report(seq), NOON);
    writeSync(1, `${seq}\n`);
  }
};
await Promise.all(Array.from({ length: Number(lanes) }, lane));
