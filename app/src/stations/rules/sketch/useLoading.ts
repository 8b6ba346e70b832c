import { useEffect, useRef, useState } from 'react';
import {
  loadProgram,
  type Loaded,
  type LoadProgress,
  type Program,
} from '@plain-trowel/core/sketch/loader/load';
import { byId } from '@plain-trowel/core/quantity/byId';
import { useGarden } from '../../../data/gardenContext.ts';
import { saveLoaded } from '../../../data/loadedPrograms.ts';
import { useLiveTools } from '../../../links/liveContext.ts';
import { openLoaderPort } from '../../../links/loaderPort.ts';
import { openProblem, SerialSource } from '../../../links/serialSource.ts';

const BAUD_RATE = 115_200;
const pause = (ms: number) => new Promise<void>((done) => setTimeout(done, ms));

export type Loading =
  | { readonly kind: 'idle' }
  | { readonly kind: 'at-work'; readonly progress: LoadProgress }
  | { readonly kind: 'done'; readonly loaded: Loaded }
  | { readonly kind: 'no-port'; readonly text: string };

/** Puts a program onto a board from the page, and connects to the board afterwards. */
export function useLoading(boardId: string) {
  const { garden } = useGarden();
  const { session } = useLiveTools();
  const [loading, setLoading] = useState<Loading>({ kind: 'idle' });
  const stop = useRef<AbortController | null>(null);
  // Left in the middle, the board is given back.
  useEffect(() => () => stop.current?.abort(), []);

  /** @param interrupt the pumps' supply is off: a program that is not ours may be interrupted */
  const load = async (program: Program, interrupt: boolean) => {
    const port = await portOf();
    if (!port) return;
    let line;
    try {
      line = await openLoaderPort(port);
    } catch (error) {
      setLoading({ kind: 'no-port', text: openProblem(error) });
      return;
    }
    stop.current = new AbortController();
    const loaded = await loadProgram(line, program, {
      interrupt,
      signal: stop.current.signal,
      onProgress: (progress) => setLoading({ kind: 'at-work', progress }),
      nowMs: () => performance.now(),
      pause,
    });
    stop.current = null;
    await line.close();
    if (loaded.ok) {
      const settings = program.files.find((one) => one.name === 'settings.py')?.text ?? '';
      saveLoaded(garden.id, boardId, { name: program.name, text: settings });
    }
    setLoading({ kind: 'done', loaded });
    const name = byId(garden.boards, boardId)?.name ?? 'Board';
    if (loaded.ok || loaded.problem !== 'foreign-program')
      await session.connect(new SerialSource(port, boardId, BAUD_RATE, name, garden, loaded.ok));
  };

  /** The port of the board that is connected, else the one that a person chooses. */
  const portOf = async (): Promise<SerialPort | null> => {
    const { source } = session.getSnapshot();
    if (source instanceof SerialSource && source.boardId === boardId) {
      await session.disconnect();
      return source.port;
    }
    try {
      return await navigator.serial.requestPort();
    } catch {
      setLoading({
        kind: 'no-port',
        text: 'No port was chosen. Plug the board in, press the button again and pick its port.',
      });
      return null;
    }
  };

  return { loading, load, stop: () => stop.current?.abort() };
}
