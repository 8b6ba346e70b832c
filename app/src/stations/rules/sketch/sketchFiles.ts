import cppBoard from '../../../../../engine/cpp/board.h?raw';
import cppEngine from '../../../../../engine/cpp/engine.h?raw';
import pythonBoard from '../../../../../engine/python/board.py?raw';
import pythonEngine from '../../../../../engine/python/engine.py?raw';
import pythonMain from '../../../../../engine/python/main.py?raw';
import type { BoardPlan } from '@plain-trowel/core/sketch/boardPlan';
import { cppSize, cppSketch } from '@plain-trowel/core/sketch/cpp';
import { pythonSettings } from '@plain-trowel/core/sketch/python';

export const LANGUAGES = ['C++', 'MicroPython'] as const;
export type Language = (typeof LANGUAGES)[number];

/** One file of a board's program. `isOwn`: written for this garden; the others are the same on every board. */
export type SketchFile = { readonly name: string; readonly text: string; readonly isOwn: boolean };

/** All files of a board's program, its own first. @param name without blanks, as the folder is called @param known why a danger in the wiring is accepted */
export function sketchFiles(
  language: Language,
  plan: BoardPlan,
  name: string,
  dateIso: string,
  known: string,
): readonly SketchFile[] {
  const own = (file: string, text: string): SketchFile => ({ name: file, text, isOwn: true });
  const common = (file: string, text: string): SketchFile => ({ name: file, text, isOwn: false });
  return language === 'C++'
    ? [
        own(`${name}.ino`, cppSketch(plan, dateIso, known)),
        own('engine_size.h', cppSize(plan)),
        common('engine.h', cppEngine),
        common('board.h', cppBoard),
      ]
    : [
        own('settings.py', pythonSettings(plan, dateIso, known)),
        common('engine.py', pythonEngine),
        common('board.py', pythonBoard),
        common('main.py', pythonMain),
      ];
}
