import type { Board, Channel } from '@plain-trowel/core/garden/document/schema';

export const PROGRAM_LANGUAGES = ['C++', 'MicroPython'] as const;
export type ProgramLanguage = (typeof PROGRAM_LANGUAGES)[number];

/** The number in a pin's words: 35 of "P35", 2 of "input 2"; null where there is none. */
const pinOf = (pin: string): number | null => {
  const digits = /(\d{1,3})(?!.*\d)/.exec(pin)?.[1];
  return digits === undefined ? null : Number(digits);
};

/** A name that both languages take, out of the name the board is to print. */
const identifier = (name: string, at: number): string => {
  const word = name
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '_')
    .replace(/^_+|_+$/g, '');
  return /^[a-z]/.test(word) ? word : `probe_${at + 1}`;
};

/**
 * A few lines that print the number of each probe twice a second, and nothing else: enough for a first look, no program for a season.
 * @param channels moisture channels of the board; without one it prints one number
 */
export function printProgram(language: ProgramLanguage, board: Board, channels: readonly Channel[]): string {
  const printed = channels.length > 0 ? channels : [{ streamName: 'value', pin: '' }];
  const reads = printed.map(({ streamName, pin }, at) => ({
    name: streamName || `probe${at + 1}`,
    variable: identifier(streamName, at),
    pin: pinOf(pin),
  }));
  const unknown = (pin: number | null) => (pin === null ? '  // put your input here' : '');
  if (language === 'C++') {
    const pins = reads.map(
      ({ variable, pin }) => `const int ${variable}_pin = ${pin ?? 'A0'};${unknown(pin)}`,
    );
    const prints = reads.flatMap(({ name, variable }) => [
      `  Serial.print("${name}=");`,
      `  Serial.println(analogRead(${variable}_pin));`,
    ]);
    return [
      ...pins,
      '',
      'void setup() {',
      '  Serial.begin(115200);',
      // Such boards give ten bits until they are asked for more.
      ...(board.adcBits > 10 ? [`  analogReadResolution(${board.adcBits});`] : []),
      '}',
      '',
      'void loop() {',
      ...prints,
      '  delay(500);',
      '}',
      '',
    ].join('\n');
  }
  // Its readings are always 16 bits wide; the board has fewer.
  const shift = Math.max(0, 16 - board.adcBits);
  const scaled = (variable: string) =>
    shift > 0 ? `${variable}.read_u16() >> ${shift}` : `${variable}.read_u16()`;
  return [
    'from machine import ADC, Pin',
    'import time',
    '',
    ...reads.map(
      ({ variable, pin }) =>
        `${variable} = ADC(Pin(${pin ?? 26}))${pin === null ? '  # put your input here' : ''}`,
    ),
    '',
    'while True:',
    ...reads.map(({ name, variable }) => `    print("${name}=%d" % (${scaled(variable)}))`),
    '    time.sleep(0.5)',
    '',
  ].join('\n');
}
