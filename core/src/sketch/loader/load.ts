/**
 * Puts a program onto a board over its serial line: ends what runs and sees the outputs off, writes beside the old program, compares sums, and only then makes
 * the new one the one that starts. Broken off at any place, the outputs are off and the old program starts again.
 */
import { FOLDERS, LIST_NAME, listText, readList, type BoardFile, type Rest } from '../folder.ts';
import { sumOf } from '../../quantity/sumOf.ts';
import { INTERRUPT, LEAVE_RAW, RawRepl } from './rawRepl.ts';
import { Listener, LoadStop, type LoaderPort, type LoadProblem } from './port.ts';

export type Program = {
  readonly files: readonly BoardFile[];
  /** The file that starts the newest program of the board. */
  readonly starter: BoardFile;
  readonly rest: readonly Rest[];
  /** By which the running program says what it is. */
  readonly name: string;
};

export type LoadStep =
  'asking' | 'stopping' | 'outputs-off' | 'writing' | 'verifying' | 'switching' | 'restarting';
export type LoadProgress = {
  readonly step: LoadStep;
  readonly doneLetters: number;
  readonly allLetters: number;
};

export type Loaded =
  | { readonly ok: true; readonly number: number; readonly firstLines: readonly string[] }
  | { readonly ok: false; readonly problem: LoadProblem; readonly said: string };

export type LoadOptions = {
  /** A person has taken the pumps' supply off: a program that is not ours may be interrupted. */
  readonly interrupt: boolean;
  readonly onProgress: (progress: LoadProgress) => void;
  readonly signal: AbortSignal | null;
  /** A clock that never goes back, ms. */
  readonly nowMs: () => number;
  readonly pause: (ms: number) => Promise<void>;
};

const LISTEN_MS = 1500;
const RESTART_MS = 15_000;
const FIRST_LINES_MS = 5000;
/** Letters of a file in one turn; it is the board's working memory that sets it. */
const PIECE_LETTERS = 768;
/** What a file takes beyond its bytes, and what must stay free. */
const FILE_EXTRA_BYTES = 4096;

export async function loadProgram(port: LoaderPort, program: Program, options: LoadOptions): Promise<Loaded> {
  const line = new Listener(port, options.nowMs, options.signal);
  const repl = new RawRepl(line, options.pause);
  const allLetters = program.files.reduce((sum, { text }) => sum + text.length, 0);
  let doneLetters = 0;
  const tell = (step: LoadStep) => options.onProgress({ step, doneLetters, allLetters });
  let isIn = false;
  try {
    tell('asking');
    await openBoard(line, options);
    tell('stopping');
    if (!(await repl.enter())) throw new LoadStop('no-interpreter', line.forget().slice(-200));
    isIn = true;
    tell('outputs-off');
    await seeOutputsOff(repl, program.rest);
    await repl.must(HELPERS);
    const programs = await programsOn(repl);
    const [first = 0, second = 0] = programs.map((one) => (one.isWhole ? one.number : 0));
    const target = first > second ? FOLDERS[1] : FOLDERS[0];
    const number = Math.max(...programs.map((one) => one.number)) + 1;
    tell('writing');
    await emptyFolder(repl, target);
    await seeRoom(repl, allLetters + program.files.length * FILE_EXTRA_BYTES);
    for (const file of program.files) {
      await writeFile(repl, `/${target}/${file.name}`, file.text, (bytes) => {
        doneLetters += bytes;
        tell('writing');
      });
    }
    tell('verifying');
    for (const file of program.files) await verify(repl, `/${target}/${file.name}`, file.text);
    tell('switching');
    const list = listText(program.files, number, program.rest);
    await writeFile(repl, `/${target}/new.txt`, list);
    await verify(repl, `/${target}/new.txt`, list);
    await repl.must(`os.rename(${text(`/${target}/new.txt`)}, ${text(`/${target}/${LIST_NAME}`)})`);
    await placeStarter(repl, program.starter);
    tell('restarting');
    isIn = false;
    await restart(repl);
    return await listenToStart(line, program.name, number);
  } catch (error) {
    const stop = error instanceof LoadStop ? error : new LoadStop('board-refused', String(error));
    if (isIn) await giveBack(new Listener(port, options.nowMs, null), options);
    return { ok: false, problem: stop.problem, said: stop.said };
  }
}

/** Ends whatever runs. A program of ours puts the board into load mode by itself; another one is interrupted only when a person has said so. */
async function openBoard(line: Listener, options: LoadOptions): Promise<void> {
  await line.send(`${LEAVE_RAW}\r\n`);
  const greeting = await line.all(LISTEN_MS);
  if (/>>> ?$/.test(greeting)) return;
  await line.send('\r\nload\r\n');
  const leaving = await line.untilAcrossRestart('# load: outputs off', LISTEN_MS);
  if (leaving.said !== null || leaving.wasAway) {
    const back = leaving.wasAway
      ? leaving
      : await line.untilAcrossRestart(/# load mode[\s\S]*>>> ?$/, RESTART_MS);
    if (back.said !== null) return;
    // The line was away while the board began anew: what it said is gone, and it waits at its prompt.
    await line.send('\r\n');
    if ((await line.until(/>>> ?$/, RESTART_MS)) === null)
      throw new LoadStop('no-answer', line.forget().slice(-200));
    return;
  }
  if (!options.interrupt) throw new LoadStop('foreign-program', lastOf(greeting + line.forget()));
  for (let turn = 0; turn < 3; turn += 1) {
    await line.send(`\r${INTERRUPT}${INTERRUPT}`);
    if ((await line.until(/>>> ?$/, LISTEN_MS)) !== null) return;
  }
  throw new LoadStop('no-interpreter', lastOf(line.forget()));
}

const lastOf = (said: string): string => said.trim().split(/\r?\n/).at(-1)?.slice(0, 200) ?? '';

/** Every output of the new program set to rest and read back, latching valves shut; each turn of work keeps the load mode from giving up. */
async function seeOutputsOff(repl: RawRepl, rest: Program['rest']): Promise<void> {
  const pins = rest.map(([pin, level]) => `(${pin}, ${level})`).join(', ');
  const said = await repl.must(
    `quiet_s = 120\nfrom machine import Pin\nprint([Pin(p, Pin.OUT, value=v).value() == v for p, v in [${pins}]])`,
  );
  if (/False/.test(said)) throw new LoadStop('outputs-not-off', said.trim());
  for (const [pin, level, ms] of rest)
    if (ms !== undefined)
      await repl.must(
        `import time\nPin(${pin}).value(${1 - level})\ntime.sleep_ms(${ms})\nPin(${pin}).value(${level})`,
      );
}

const HELPERS = `
import os, hashlib, binascii
def _exists(path):
    try:
        os.stat(path)
        return True
    except OSError:
        return False
def _read(path):
    with open(path) as file:
        return file.read()
def _sum(path):
    total = hashlib.sha256()
    with open(path, 'rb') as file:
        while True:
            block = file.read(512)
            if not block:
                return binascii.hexlify(total.digest()).decode()
            total.update(block)
def _add(path, mode, piece):
    global quiet_s
    quiet_s = 120
    with open(path, mode) as file:
        file.write(piece)
`;

const text = (of: string): string => `'${of}'`;

/** What lies in both folders. Only a program whose files agree with its list is worth sparing; a number that was given is not given again. */
async function programsOn(
  repl: RawRepl,
): Promise<readonly { readonly number: number; readonly isWhole: boolean }[]> {
  const programs: { readonly number: number; readonly isWhole: boolean }[] = [];
  for (const folder of FOLDERS) {
    const path = text(`/${folder}/${LIST_NAME}`);
    const list = readList(
      (await repl.must(`quiet_s = 120\nprint(_read(${path}) if _exists(${path}) else '')`)).replace(
        /\r/g,
        '',
      ),
    );
    if (!list) {
      programs.push({ number: 0, isWhole: false });
      continue;
    }
    const paths = list.files.map(({ name }) => text(`/${folder}/${name}`)).join(', ');
    const sums = await repl.must(`print([_sum(p) if _exists(p) else '' for p in [${paths}]])`);
    programs.push({ number: list.number, isWhole: list.files.every(({ sum }) => sums.includes(sum)) });
  }
  return programs;
}

/** Its list goes first: from then on the folder is not started, whatever else is in it. */
async function emptyFolder(repl: RawRepl, folder: string): Promise<void> {
  const [path, list] = [text(`/${folder}`), text(`/${folder}/${LIST_NAME}`)];
  await repl.must(`quiet_s = 120
if _exists(${list}): os.remove(${list})
if _exists(${path}):
    for one in os.listdir(${path}):
        if one[0] != '_': os.remove(${path} + '/' + one)
else: os.mkdir(${path})`);
}

async function seeRoom(repl: RawRepl, bytes: number): Promise<void> {
  const said = await repl.must(`s = os.statvfs('/')\nprint(s[0] * s[3])`);
  const free = Number(said.trim());
  if (Number.isFinite(free) && free < bytes)
    throw new LoadStop('disk-full', `${free} of ${bytes} bytes free`);
}

async function writeFile(
  repl: RawRepl,
  path: string,
  content: string,
  onBytes: (bytes: number) => void = () => undefined,
): Promise<void> {
  const letters = Array.from(content);
  for (let from = 0; from === 0 || from < letters.length; from += PIECE_LETTERS) {
    const piece = letters.slice(from, from + PIECE_LETTERS);
    await repl.must(`_add(${text(path)}, '${from === 0 ? 'w' : 'a'}', ${literal(piece)})`);
    onBytes(piece.length);
  }
}

/** A string of the language that means just these letters, itself in plain ASCII. */
const literal = (letters: readonly string[]): string => `'${letters.map(escaped).join('')}'`;

function escaped(letter: string): string {
  if (letter === '\n') return '\\n';
  if (letter === '\\' || letter === "'") return `\\${letter}`;
  if (letter >= ' ' && letter <= '~') return letter;
  return `\\U${(letter.codePointAt(0) ?? 0).toString(16).padStart(8, '0')}`;
}

async function verify(repl: RawRepl, path: string, content: string): Promise<void> {
  const said = (await repl.must(`quiet_s = 120\nprint(_sum(${text(path)}))`)).trim();
  if (said !== sumOf(content)) throw new LoadStop('not-verified', path);
}

/** The starter is the same on every board and rarely new; one that is not ours is kept under another name. */
async function placeStarter(repl: RawRepl, { name, text: content }: BoardFile): Promise<void> {
  const [path, fresh, before] = [text(`/${name}`), text(`/new_${name}`), text(`/before_${name}`)];
  const said = await repl.must(`quiet_s = 120\nprint(_sum(${path}) if _exists(${path}) else 'none')`);
  if (said.trim() === sumOf(content)) return;
  await writeFile(repl, `/new_${name}`, content);
  await verify(repl, `/new_${name}`, content);
  await repl.must(`if _exists(${path}):
    if not _exists(${before}):
        with open(${before}, 'wb') as into:
            with open(${path}, 'rb') as source:
                while True:
                    block = source.read(512)
                    if not block: break
                    into.write(block)
    try:
        os.rename(${fresh}, ${path})
    except OSError:
        os.remove(${path})
        os.rename(${fresh}, ${path})
else: os.rename(${fresh}, ${path})`);
}

/** A line that goes away with it has done what was asked. */
async function restart(repl: RawRepl): Promise<void> {
  try {
    await repl.begin('import machine\nmachine.reset()');
  } catch (error) {
    if (!(error instanceof LoadStop && error.problem === 'line-lost')) throw error;
  }
}

const VERSION_LINE = /# version \d+ [0-9a-f]+[^\r\n]*\r?\n/;

async function listenToStart(line: Listener, name: string, number: number): Promise<Loaded> {
  const { said: first, wasAway } = await line.untilAcrossRestart(VERSION_LINE, RESTART_MS);
  if (wasAway) await line.send('\nversion\n');
  const version = wasAway ? await line.until(VERSION_LINE, RESTART_MS) : first;
  if (version === null) throw new LoadStop('did-not-start', lastOf(line.forget()));
  if (!version.includes(`# version ${number} ${name}`)) throw new LoadStop('did-not-start', lastOf(version));
  const said = version.slice(version.indexOf('# version')) + (await line.all(FIRST_LINES_MS));
  const lines = said.trim().split(/\r?\n/);
  return { ok: true, number, firstLines: lines.slice(0, 6) };
}

/** Loading was broken off in the middle: the board is restarted into its old program, if it still listens. */
async function giveBack(line: Listener, { pause }: LoadOptions): Promise<void> {
  try {
    const repl = new RawRepl(line, pause);
    await repl.drop();
    if (await repl.enter()) await restart(repl);
  } catch {
    // The line is gone; the board does it by itself after its quiet time.
  }
}
