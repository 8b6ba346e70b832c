import { describe, expect, test } from 'vitest';
import { marigoldHare } from '@plain-trowel/standins/sample/marigoldHare';
import { parseLine, initialLineParser } from '@plain-trowel/core/signal/line';
import { printProgram } from './printProgram.ts';

const garden = marigoldHare(Date.parse('2026-11-27T10:00:00Z'));
const [board] = garden.boards;
if (!board) throw new Error('the sample has a board');
const channels = garden.channels.filter((one) => one.boardId === board.id && one.quantity === 'moisture');

describe('a few lines that print the numbers', () => {
  test('C++ reads each probe at its pin and prints it under the name that the garden listens to', () => {
    const program = printProgram('C++', board, channels);
    for (const { pin, streamName } of channels) {
      expect(program).toContain(`_pin = ${/\d+/.exec(pin)?.[0] ?? ''};`);
      expect(program).toContain(`Serial.print("${streamName}=");`);
    }
    expect(program.match(/\{/g)).toHaveLength(program.match(/\}/g)?.length ?? 0);
    expect(program).toContain('Serial.begin(115200);');
  });
  test('MicroPython brings its 16 bits down to the board’s own', () => {
    expect(printProgram('MicroPython', { ...board, adcBits: 12 }, channels)).toContain('.read_u16() >> 4');
    expect(printProgram('MicroPython', { ...board, adcBits: 16 }, channels)).not.toContain('>>');
  });
  test('what it prints is understood', () => {
    expect(parseLine(initialLineParser, `${channels[0]?.streamName ?? ''}=512`).result).toMatchObject({
      kind: 'values',
    });
  });
  test('without a probe or a pin it says where to put the input, and its names are ones that a language takes', () => {
    expect(printProgram('C++', board, [])).toContain('const int value_pin = A0;  // put your input here');
    const odd = channels.slice(0, 1).map((one) => ({ ...one, streamName: '2 Töpfe!', pin: '' }));
    expect(printProgram('MicroPython', board, odd)).toMatch(/^probe_1 = ADC\(Pin\(26\)\) {2}# put/m);
  });
});
