/** A board whose own program runs in the page: the interpreter, its pins and the pots that they are wired to, away from the page. */
import wasmUrl from '@micropython/micropython-webassembly-pyscript/micropython.wasm?url';
import { loadMicroPython } from '@micropython/micropython-webassembly-pyscript/micropython.mjs';
import { expose } from 'comlink';
import type { Garden } from '@plain-trowel/core/garden/document/schema';
import type { BoardPlan } from '@plain-trowel/core/sketch/plan';
import { FOLDERS, LIST_NAME, listText } from '@plain-trowel/core/sketch/folder';
import type { Program } from '@plain-trowel/core/sketch/loader/load';
import { PyWorld, type PyTurn } from '@plain-trowel/standins/interpreter/pyWorld';
import { applyEdit, type World, type WorldEdit } from '@plain-trowel/standins/board/world';
import host from '../../../engine/python/host/host.py?raw';

const HEAP_BYTES = 4 * 1024 * 1024;

let py: PyWorld | null = null;

const encoder = new TextEncoder();

/** As the loader leaves a board with its first program. */
const filesOf = ({ files, starter, rest }: Program): ReadonlyMap<string, Uint8Array> =>
  new Map([
    ...files.map(({ name, text }) => [`/${FOLDERS[0]}/${name}`, encoder.encode(text)] as const),
    [`/${FOLDERS[0]}/${LIST_NAME}`, encoder.encode(listText(files, 1, rest))],
    [`/${starter.name}`, encoder.encode(starter.text)],
  ]);

const jobs = {
  start: async (garden: Garden, boardId: string, plan: BoardPlan, program: Program, world: World) => {
    py = new PyWorld(
      garden,
      boardId,
      plan,
      filesOf(program),
      world,
      (stdout) => loadMicroPython({ heapsize: HEAP_BYTES, url: wasmUrl, linebuffer: false, stdout }),
      host,
    );
    await py.start();
  },
  run: async (durationMs: number, lineEveryMs: number): Promise<(PyTurn & { world: World }) | null> => {
    if (!py) return null;
    const turn = await py.run(durationMs, lineEveryMs);
    return { ...turn, world: py.world };
  },
  type: (text: string) => py?.type(text),
  setGarden: (garden: Garden) => py?.setGarden(garden),
  edit: (edit: WorldEdit) => py?.change((world, setup) => applyEdit(world, setup, edit)),
};
export type BoardJobs = typeof jobs;
expose(jobs);
