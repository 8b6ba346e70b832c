import cppBoard from '../../../../../engine/cpp/board.h?raw';
import cppEngine from '../../../../../engine/cpp/engine.h?raw';
import pythonBoard from '../../../../../engine/python/board.py?raw';
import pythonConsole from '../../../../../engine/python/console.py?raw';
import pythonEngine from '../../../../../engine/python/engine.py?raw';
import pythonKept from '../../../../../engine/python/kept.py?raw';
import pythonMain from '../../../../../engine/python/main.py?raw';
import pythonReasons from '../../../../../engine/python/reasons.py?raw';
import pythonStart from '../../../../../engine/python/start.py?raw';
import pythonStore from '../../../../../engine/python/store.py?raw';
import type { BoardPlan } from '@plain-trowel/core/sketch/plan';
import { cppSize, cppSketch } from '@plain-trowel/core/sketch/cpp';
import { FOLDERS, LIST_NAME, listText, restLevels } from '@plain-trowel/core/sketch/folder';
import type { Program } from '@plain-trowel/core/sketch/loader/load';
import { programName, pythonSettings } from '@plain-trowel/core/sketch/python';

export const LANGUAGES = ['C++', 'MicroPython'] as const;
export type Language = (typeof LANGUAGES)[number];

/** One file of a board's program. `isOwn`: written for this garden; the others are the same on every board. */
export type SketchFile = { readonly name: string; readonly text: string; readonly isOwn: boolean };

const own = (name: string, text: string): SketchFile => ({ name, text, isOwn: true });
const common = (name: string, text: string): SketchFile => ({ name, text, isOwn: false });

/** All files of a board's program, its own first. @param name without blanks, as the folder is called @param known why a danger in the wiring is accepted */
export function sketchFiles(
  language: Language,
  plan: BoardPlan,
  name: string,
  dateIso: string,
  known: string,
): readonly SketchFile[] {
  if (language === 'C++')
    return [
      own(`${name}.ino`, cppSketch(plan, dateIso, known)),
      own('engine_size.h', cppSize(plan)),
      common('engine.h', cppEngine),
      common('board.h', cppBoard),
    ];
  const { files, starter } = pythonProgram(plan, dateIso, known);
  return [
    ...files.map(({ name: file, text }) => (file === 'settings.py' ? own(file, text) : common(file, text))),
    common(starter.name, starter.text),
  ];
}

/** The same in MicroPython as it is put on a board. */
export function pythonProgram(plan: BoardPlan, dateIso: string, known: string): Program {
  return {
    files: [
      { name: 'settings.py', text: pythonSettings(plan, dateIso, known) },
      { name: 'board.py', text: pythonBoard },
      { name: 'console.py', text: pythonConsole },
      { name: 'engine.py', text: pythonEngine },
      { name: 'kept.py', text: pythonKept },
      { name: 'reasons.py', text: pythonReasons },
      { name: 'start.py', text: pythonStart },
      { name: 'store.py', text: pythonStore },
    ],
    starter: { name: 'main.py', text: pythonMain },
    rest: restLevels(plan),
    name: programName(plan),
  };
}

/** Where the files lie in the zip, as they are to lie on the board. @param number of the program: whoever copies it by hand wants it to be the newest */
export function zipEntries(
  language: Language,
  plan: BoardPlan,
  folder: string,
  files: readonly SketchFile[],
  number: number,
): readonly (readonly [path: string, text: string])[] {
  if (language === 'C++') return files.map(({ name, text }) => [`${folder}/${name}`, text]);
  const inFolder = files.filter(({ name }) => name !== 'main.py');
  return [
    ...files.map(
      ({ name, text }) =>
        [name === 'main.py' ? `${folder}/${name}` : `${folder}/${FOLDERS[0]}/${name}`, text] as const,
    ),
    [`${folder}/${FOLDERS[0]}/${LIST_NAME}`, listText(inFolder, number, restLevels(plan))],
  ];
}
