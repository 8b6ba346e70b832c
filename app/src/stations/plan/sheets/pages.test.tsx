import { renderToStaticMarkup } from 'react-dom/server';
import { describe, expect, test } from 'vitest';
import { catalogueOf, setPlacement, settingOf } from '@plain-trowel/core/garden/edits/plan';
import { checkWiring } from '@plain-trowel/core/wiring/checks/all';
import { readCircuit } from '@plain-trowel/core/wiring/circuit';
import { marigoldHare } from '@plain-trowel/standins/sample/marigoldHare';
import { pictureOf } from '../wiring/picture/pictureModel.ts';
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
  const picture = pictureOf(circuit, 'all', false);
  const layout = {
    places: new Map(picture.strips.map((strip, at) => [strip.id, { x: 200 * strip.column, y: 120 * at }])),
    routes: new Map(
      picture.strands.map((strand) => [
        strand.id,
        [
          { x: 0, y: 0 },
          { x: 10, y: 10 },
        ],
      ]),
    ),
    width: 1200,
    height: 900,
  };
  const pages = read(
    wiringPages({ ...common, circuit, verdict: checkWiring(circuit, settingOf(garden)), picture, layout }),
  );
  test('draws every part on its first page', () => {
    for (const { part } of circuit.parts.values()) expect(pages[0]).toContain(part.label);
  });
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
      picture,
      layout,
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
      for (const text of Object.values(one.placement)) expect(pages).toContain(text);
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
