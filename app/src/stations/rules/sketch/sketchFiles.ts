import type { BoardPlan } from '@plain-trowel/core/sketch/plan';
import { cppSize, cppSketch } from '@plain-trowel/core/sketch/cpp';
import { cppSecrets } from '@plain-trowel/core/sketch/cppNetwork';
import { cppFileNames, pythonFileNames } from '@plain-trowel/core/sketch/files';
import { FOLDERS, LIST_NAME, listText, restLevels } from '@plain-trowel/core/sketch/folder';
import type { Program } from '@plain-trowel/core/sketch/loader/load';
import { programName, pythonSettings } from '@plain-trowel/core/sketch/python';

/** By their paths: what is the same on every board comes with the page. */
const COMMON = import.meta.glob<string>(
  ['../../../../../engine/cpp/*.h', '../../../../../engine/python/*.py'],
  { query: '?raw', import: 'default', eager: true },
);
function commonText(name: string): string {
  const [, text] = Object.entries(COMMON).find(([path]) => path.endsWith(`/${name}`)) ?? [];
  if (text === undefined) throw new Error(`${name} does not come with the page`);
  return text;
}

export const LANGUAGES = ['C++', 'MicroPython'] as const;
export type Language = (typeof LANGUAGES)[number];

/** One file of a board's program. `isOwn`: written for this garden; the others are the same on every board. */
export type SketchFile = { readonly name: string; readonly text: string; readonly isOwn: boolean };

const own = (name: string, text: string): SketchFile => ({ name, text, isOwn: true });
const common = (name: string): SketchFile => ({ name, text: commonText(name), isOwn: false });

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
      ...(plan.network ? [own('secrets.h', cppSecrets(plan))] : []),
      ...cppFileNames(plan).map(common),
    ];
  const { files, starter } = pythonProgram(plan, dateIso, known);
  return [
    ...files.map(({ name: file, text }) => (file === 'settings.py' ? own(file, text) : common(file))),
    common(starter.name),
  ];
}

/** The same in MicroPython as it is put on a board. */
export function pythonProgram(plan: BoardPlan, dateIso: string, known: string): Program {
  return {
    files: [
      { name: 'settings.py', text: pythonSettings(plan, dateIso, known) },
      ...pythonFileNames(plan).map((name) => ({ name, text: commonText(name) })),
    ],
    starter: { name: 'main.py', text: commonText('main.py') },
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
