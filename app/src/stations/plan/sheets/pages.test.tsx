import { renderToStaticMarkup } from 'react-dom/server';
import { describe, expect, test } from 'vitest';
import { catalogueOf, setPlacement, settingOf } from '@plain-trowel/core/garden/edits/plan';
import { checkWiring } from '@plain-trowel/core/wiring/checks/all';
import { readCircuit } from '@plain-trowel/core/wiring/circuit';
import { marigoldHare } from '@plain-trowel/standins/sample/marigoldHare';
import { hubBlocks } from './HubDrawing.tsx';
import { labelPages } from './LabelPages.tsx';
import { placementPages } from './PlacementPages.tsx';
import { wiringPages } from './WiringPages.tsx';

const garden = marigoldHare(Date.parse('2026-06-01T12:00:00Z'));
const circuit = readCircuit(garden.wiring, catalogueOf(garden));
const common = { paper: 'A4', subtitle: 'The Marigold Hare, 1 June 2026.' } as const;
/** What is read on a page: texts in order, without the drawing. */
const read = (pages: Parameters<typeof renderToStaticMarkup>[0][]) =>
  pages.map((page) =>
    renderToStaticMarkup(page)
      .replace(/<[^>]+>/g, ' ')
      .replace(/\s+/g, ' '),
  );

describe('the wiring sheet', () => {
  const pages = read(wiringPages({ ...common, circuit, verdict: checkWiring(circuit, settingOf(garden)) }));
  const drawn = pages.filter((page) => !page.includes('pins, cables, bench'));
  test('draws every wired part, and every wire once, with its number', () => {
    const text = drawn.join(' ');
    for (const { part } of circuit.parts.values())
      if (circuit.netlist.wires.some(({ from, to }) => from.part === part.id || to.part === part.id))
        expect(text).toContain(part.label.slice(0, 18));
    // The number stands in the middle of its line.
    const numbers = wiringPages({ ...common, circuit, verdict: checkWiring(circuit, settingOf(garden)) })
      .flatMap((page) => [...renderToStaticMarkup(page).matchAll(/text-anchor="middle">(\d+)(?: [^<]*)?</g)])
      .map((match) => Number(match[1]));
    expect(numbers.toSorted((one, other) => one - other)).toEqual(
      circuit.netlist.wires.map((_, at) => at + 1),
    );
  });
  test.each([60, 110, 250])(
    'is cut into drawings of at most %d mm, down to half of the wires to one part; none is lost',
    (most) => {
      const blocks = hubBlocks(circuit, most);
      for (const { heightMm } of blocks) expect(heightMm).toBeLessThanOrEqual(most);
      const drawnIds = blocks.flatMap(({ left, right }) =>
        [...left, ...right].flatMap(({ wires }) => wires.map(({ id }) => id)),
      );
      expect(drawnIds.toSorted()).toEqual(circuit.netlist.wires.map(({ id }) => id).toSorted());
    },
  );
  test('cuts the wires to a single part as well', () => {
    const low = hubBlocks(circuit, 30);
    for (const { left, right, heightMm } of low)
      if (heightMm > 30) expect([...left, ...right].flatMap(({ wires }) => wires)).toHaveLength(1);
    expect(low.flatMap(({ left, right }) => [...left, ...right].flatMap(({ wires }) => wires))).toHaveLength(
      circuit.netlist.wires.length,
    );
  });
  test('is upright: a page for each board and one for what lies between at most', () =>
    expect(drawn.length).toBeLessThanOrEqual(3));
  test('lists each board’s pins with what is on them', () => {
    expect(pages.join()).toMatch(
      /Roof board, 3\.3 V Wi-Fi board.* P34 L1 signal .*Stern board, 8-bit 5 V board.* IN0 M1 signal/,
    );
  });
  test('lists cables by the names of their terminals, with tag, length and cross-section', () => {
    expect(pages.join()).toMatch(/Cables .*L1 yellow tag, 2\.4 m, 0\.22 mm² .*ground – ground/);
  });
  test('has what is to do at the bench, to be ticked', () => {
    expect(pages.join()).toContain('keep its plug above the soil and sealed');
  });
  test('says on each page which of how many it is', () => {
    pages.forEach((page, at) => expect(page).toContain(`page ${at + 1} of ${pages.length}`));
  });
  test('on Letter the page is Letter', () => {
    const [first] = wiringPages({
      ...common,
      paper: 'Letter',
      circuit,
      verdict: checkWiring(circuit, settingOf(garden)),
    });
    expect(renderToStaticMarkup(first)).toContain('viewBox="0 0 215.9 279.4"');
  });
});

describe('cable labels', () => {
  const pages = read(labelPages({ ...common, circuit }));
  test('two for each cable, with the ends exchanged', () => {
    for (const cable of circuit.netlist.cables)
      expect(pages.join().split(` ${cable.label} `).length - 1).toBeGreaterThanOrEqual(2);
    expect(pages.join().match(/here: /g)).toHaveLength(2 * circuit.netlist.cables.length);
    expect(pages.join()).toMatch(
      /here: Roof board: ground, 3\.3 V out, P34 .*other end: L1: ground, supply, signal/,
    );
  });
});

describe('the placement sheet', () => {
  const [probe] = garden.probes;
  if (!probe) throw new Error('no probe');
  test('has each probe with depth, place, outlets and map note', () => {
    const pages = read(placementPages({ ...common, garden })).join();
    for (const one of garden.probes) {
      expect(pages).toContain(`${one.depthCm} cm; the line at the soil’s surface`);
      const { where, between, mapNote } = one.placement;
      for (const text of [where, between, mapNote]) expect(pages).toContain(text);
    }
    expect(pages).toContain('What not to do');
    expect(pages).toContain('ask where buried services run');
  });
  test('leaves a line to write on where nothing was said', () => {
    const pages = read(
      placementPages({ ...common, garden: setPlacement(garden, probe.id, { mapNote: '' }) }),
    ).join();
    expect(pages).toMatch(/On the map _{10,}/);
  });
  test('a bed is drawn as open ground, not as a pot; a trough has upright walls', () => {
    const asKind = (kind: 'bed' | 'trough' | 'pot') =>
      renderToStaticMarkup(
        placementPages({
          ...common,
          garden: { ...garden, probes: [probe], plots: garden.plots.map((plot) => ({ ...plot, kind })) },
        })[0],
      );
    const walls = /d="M14 \d+L18 \d+H48L52 \d+"/;
    expect(asKind('pot')).toMatch(walls);
    expect(asKind('bed')).not.toMatch(walls);
    expect(asKind('bed')).toMatch(/d="M12 \d+H54"/);
    expect(asKind('trough')).toMatch(/d="M12 \d+V\d+H54V\d+"/);
  });
  test('a probe that lies otherwise than upright is drawn so and says why, and that it must be sealed', () => {
    const lying = (lies: 'on edge' | 'in the middle') =>
      placementPages({ ...common, garden: setPlacement(garden, probe.id, { lies, depthCm: 15 }) });
    expect(read(lying('on edge')).join()).toMatch(/level, on its narrow edge\. It reads one depth/);
    expect(read(lying('on edge')).join()).toContain('sealed');
    // Half of the drawn 30 cm, 28 mm: its edge lies 14 mm below the surface, which is 10 mm below the block.
    expect(renderToStaticMarkup(lying('on edge')[0])).toContain(
      '<rect x="27" y="49.4" width="12" height="1.2"',
    );
    expect(renderToStaticMarkup(lying('in the middle')[0])).toContain(
      '<rect x="31" y="44" width="4" height="12"',
    );
  });
  test('a probe deeper than the drawn pot ends at its floor and keeps its number', () => {
    const deep = setPlacement(garden, probe.id, { depthCm: 80 });
    const drawing = renderToStaticMarkup(placementPages({ ...common, garden: deep })[0]);
    const heights = [...drawing.matchAll(/<rect x="31" y="[\d.]+" width="4" height="([\d.]+)"/g)].map(
      (match) => Number(match[1]),
    );
    expect(Math.max(...heights)).toBeLessThanOrEqual(34);
    expect(drawing).toContain('80');
  });
});
