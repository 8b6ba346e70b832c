/** Which files a board's program consists of, beside those that are written for it: they lie in `engine/cpp` and `engine/python` and are the same on every board. */
import type { BoardPlan } from './plan.ts';

/** Headers of a program in C++. */
export const cppFileNames = ({
  contacts,
  watches,
  displays,
  bus,
  i2c,
  network,
}: BoardPlan): readonly string[] => [
  'engine.h',
  'pins.h',
  'tell.h',
  ...(contacts.length > 0 ? ['contacts.h'] : []),
  ...(watches.length > 0 ? ['signals.h', 'lamps.h'] : []),
  ...(bus ? ['bus.h'] : []),
  ...(i2c || displays.length > 0 ? ['wires.h'] : []),
  ...(i2c ? ['i2c.h'] : []),
  ...(displays.some((one) => one.of === 'dots') ? ['font.h', 'dots.h'] : []),
  ...(displays.some((one) => one.of === 'letters') ? ['letters.h'] : []),
  ...(displays.length > 0 ? ['screen.h'] : []),
  'inputs.h',
  'kept.h',
  'settable.h',
  'console.h',
  ...(network ? ['json.h', 'report.h', network.over === 'mqtt' ? 'mqtt.h' : 'post.h', 'net.h'] : []),
  'board.h',
];

/** Modules of a program in MicroPython; its starter is not among them. */
export const pythonFileNames = ({
  contacts,
  lamps,
  displays,
  bus,
  i2c,
  network,
  sleep,
}: Pick<
  BoardPlan,
  'contacts' | 'lamps' | 'displays' | 'bus' | 'i2c' | 'network' | 'sleep'
>): readonly string[] => [
  'board.py',
  ...(bus ? ['bus.py'] : []),
  'console.py',
  ...(contacts.length > 0 ? ['contacts.py'] : []),
  'engine.py',
  ...(i2c ? ['i2c.py'] : []),
  'kept.py',
  ...(network ? [network.over === 'mqtt' ? 'mqtt.py' : 'post.py', 'net.py', 'radio.py'] : []),
  'reasons.py',
  ...(displays.length > 0 ? ['screen.py'] : []),
  ...(displays.length > 0 || lamps.some(({ kind }) => kind === 'ring') ? ['shows.py'] : []),
  ...(lamps.length + displays.length > 0 ? ['signals.py'] : []),
  'settable.py',
  ...(sleep ? ['sleeper.py'] : []),
  'start.py',
  'store.py',
];
