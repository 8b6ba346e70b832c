// Looks through a store in a process of its own, and prints what it found: `inspectMain.ts FOLDER`.
import { inspect } from './inspect.ts';
import { openStore } from './store.ts';

const store = openStore(process.argv[2] ?? '');
console.log(JSON.stringify(inspect(store)));
await store.root.close();
