import { renderToStaticMarkup } from 'react-dom/server';
import { describe, expect, test } from 'vitest';
import { catalogueOf, settingOf } from '@plain-trowel/core/garden/edits/plan';
import { checkWiring } from '@plain-trowel/core/wiring/checks/all';
import { readCircuit } from '@plain-trowel/core/wiring/circuit';
import { tenFaults } from '@plain-trowel/standins/sample/tenFaults';
import { endName, endOfValue, endValue } from './ends.ts';
import { FindingList, isSame } from './FindingList.tsx';
import { levelText } from './levelText.ts';

const garden = tenFaults();
const circuit = readCircuit(garden.wiring, catalogueOf(garden));
const verdict = checkWiring(circuit, settingOf(garden));
const list = (open: (typeof verdict.findings)[number] | null) =>
  renderToStaticMarkup(
    <FindingList
      verdict={verdict}
      isOld={false}
      open={open}
      onOpen={() => undefined}
      onMend={() => undefined}
    />,
  );

describe('the list of findings', () => {
  test('has the worst first, and leaves what is to do at the bench folded', () => {
    const html = list(null);
    const words = [...html.matchAll(/>(danger|fault|caution|cannot tell|at the bench)</g)].map(
      (match) => match[1],
    );
    expect(words).toEqual(['danger', ...Array.from({ length: 9 }, () => 'fault')]);
    expect(html).toContain('6 to do at the bench');
  });
  test('an open finding tells why it matters and offers its remedies', () => {
    const clash = verdict.findings.find((one) => one.check === 'i2c-address');
    if (!clash) throw new Error('no clash');
    const html = list(clash);
    expect(html).toContain('Both answer at once and the board reads neither.');
    expect(html).toContain('Give Display 2 address 0x3d');
    expect(html.match(/aria-expanded="true"/g)).toHaveLength(1);
  });
  test('every check stands in the table behind it with its verdict', () => {
    const html = list(null);
    for (const { check } of verdict.results) expect(html).toContain(check.title);
    expect(html).toContain('not needed');
  });
  test('a finding is known again by its check and its words', () => {
    const [first, second] = verdict.findings;
    if (!first || !second) throw new Error('too few findings');
    expect(isSame(first, { ...first })).toBe(true);
    expect(isSame(first, second)).toBe(false);
  });
});

describe('ends and levels in words', () => {
  const at = (part: string, terminal: string) => ({ part, terminal });
  test('an end is named by label and terminal; one that is gone by its ids', () => {
    expect(endName(circuit, at('board', 'p35'))).toBe('Shed board P35');
    expect(endName(circuit, at('gone', 'x'))).toBe('gone x');
    expect(endOfValue(endValue(at('board', 'p35')))).toEqual(at('board', 'p35'));
  });
  test.each([
    ['board', 'p17', 'At most 5.0 V, from Bus transceiver data out.'],
    ['board', 'gnd', 'Ground.'],
    ['rs', 'a', 'Nothing on it gives a voltage.'],
    ['pump', 'minus', 'At most 14.4 V, from Battery +.'],
  ])('%s %s', (part, terminal, text) => {
    expect(levelText(circuit, at(part, terminal))).toBe(text);
  });
});
