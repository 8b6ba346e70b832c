// npm run gateway:export and npm run gateway:verify: what lies in the mailbox as files, and whether all of it can be read.
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import { isSound } from '../mailbox/inspect.ts';
import { inspectFolder } from '../mailbox/rescue.ts';
import { openStore } from '../mailbox/store.ts';
import { exportAll } from './exportAll.ts';

const root = join(import.meta.dirname, '../../..');
const USAGE =
  'Say which: npm run gateway:export -- [--data FOLDER] [--to FOLDER], or npm run gateway:verify -- [--data FOLDER]';

async function run(): Promise<number> {
  let read;
  try {
    read = parseArgs({
      args: process.argv.slice(2),
      options: { data: { type: 'string' }, to: { type: 'string' } },
      allowPositionals: true,
    });
  } catch {
    console.error(USAGE);
    return 2;
  }
  const [what] = read.positionals;
  const data = read.values.data ?? join(root, 'gateway-data');
  if (what !== 'export' && what !== 'verify') {
    console.error(USAGE);
    return 2;
  }
  if (!existsSync(join(data, 'data.mdb'))) {
    console.error(`There is no mailbox in ${data}. Say where it is: --data FOLDER`);
    return 2;
  }
  // In a process of its own: a damaged store can end the one that looks at it.
  const inspection = await inspectFolder(data);
  if (!inspection) {
    console.error(
      'The mailbox is damaged and cannot be looked through to its end. Start the gateway: it puts the file aside and goes on with what can be read of it.',
    );
    return 1;
  }
  const { gardens, entries, damaged, missing } = inspection;
  console.log(
    `${entries} reports of ${gardens} ${gardens === 1 ? 'garden' : 'gardens'}; ${damaged} damaged, ${missing} missing.`,
  );
  if (what === 'export') {
    const store = openStore(data);
    const done = await exportAll(store, read.values.to ?? join(data, 'export'));
    await store.root.close();
    console.log(`Wrote ${done.entries} reports and ${done.readings} readings:\n  ${done.files.join('\n  ')}`);
  }
  return isSound(inspection) ? 0 : 1;
}

process.exit(await run());
