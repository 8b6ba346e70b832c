/** Checks of care: what is not wired at all, lines and connectors, labels, and the cautions for mains, drinking water and lithium. */
import { fact, hasRole, isBareSensor, isType, spotAt, spotsOf, type Spot } from '../circuit.ts';
import type { Check } from '../finding.ts';
import { allSpots, isWired, listOf, nameOf, others, partsWith } from '../look.ts';

const SIGNALS = new Set([
  'analog out',
  'digital out',
  'digital in',
  'open drain',
  'i2c',
  'one-wire',
  'uart in',
  'uart out',
  'rs485',
  'control',
  'switched',
]);

/** Probes whose metal lies bare in the soil, and goes into it under current. */
const BARE_METAL = new Set(['probe-fork', 'probe-comparator', 'probe-electrodes', 'probe-electrodes-bare']);
/** Small parts that are mostly soldered. */
const SOLDERED = ['resistor', 'MOSFET', 'transistor', 'diode', 'LED', 'divider'] as const;

export const CARE_CHECKS: readonly Check[] = [
  {
    id: 'eaten-from',
    title: 'No probe gives its metal to a pot that people eat from',
    why: 'Bare metal under current dissolves into the soil; plated forks, lead solder and sealant have no place beside food.',
    run: (circuit, report) => {
      for (const probe of partsWith(circuit, 'probe'))
        if (BARE_METAL.has(probe.part.entryId))
          report.find(
            'note',
            `${probe.part.label} has bare metal in the soil, which corrodes into it. Keep it out of pots and beds that people eat from, or use graphite or stainless steel; no lead solder, plating or sealant below the soil’s surface.`,
            spotsOf(probe).slice(0, 1),
          );
        else report.fine();
    },
  },
  {
    id: 'solder',
    title: 'What is soldered and sealed is done with clean air',
    why: 'Flux fumes, lead and uncured resin harm lungs and skin; a hot iron starts fires.',
    run: (circuit, report) => {
      const small = partsWith(circuit, ...SOLDERED);
      const sealed = partsWith(circuit, 'probe').filter((probe) => fact(probe, 'lineMark') === 1);
      const [first] = [...small, ...sealed];
      if (first)
        report.find(
          'note',
          `${small.length > 0 ? 'Solder with the window open and a fan that draws the fumes away, lead-free, hands washed before eating. ' : ''}Resin and sealant over a probe’s electronics: gloves, fresh air, and cured as long as its label says before it goes into soil.`,
          spotsOf(first).slice(0, 1),
        );
      else if (circuit.parts.size > 0) report.fine();
    },
  },
  {
    id: 'not-in-catalogue',
    title: 'Every part is in the catalogue',
    why: 'Without its terminals and figures nothing about a part can be judged.',
    run: (circuit, report) => {
      for (const part of circuit.unknownEntries)
        report.unknown(
          `${part.label} is a "${part.entryId}", which the catalogue does not have. Import the catalogue it came with, or add the entry.`,
          [],
        );
      for (const wire of circuit.danglingWires)
        report.unknown(
          `A wire goes to ${wire.from.part} ${wire.from.terminal} and ${wire.to.part} ${wire.to.terminal}, and one of these terminals does not exist.`,
          [],
        );
      for (let at = 0; at < circuit.parts.size; at += 1) report.fine();
    },
  },
  {
    id: 'open-signal',
    title: 'Every signal is wired',
    why: 'An input left open floats, and an output left open does nothing.',
    run: (circuit, report) => {
      for (const spot of allSpots(circuit)) {
        if (!SIGNALS.has(spot.terminal.type) && !needsItsLeads(spot)) continue;
        // A relay may use either of its contacts; an LED or diode wants both leads.
        if (isWired(circuit, spot)) report.fine();
        else report.find('caution', `${nameOf(spot)} is not wired.`, [spot]);
      }
    },
  },
  {
    id: 'line-mark',
    title: 'Every probe can stand its place in the ground',
    why: 'Electronics above the line and the upper edge of a stick must stay dry; one that was dipped reads too wet and dies.',
    run: (circuit, report) => {
      for (const probe of partsWith(circuit, 'probe')) {
        const lineMark = fact(probe, 'lineMark');
        const spots = spotsOf(probe).slice(0, 1);
        if (lineMark === null)
          report.unknown(
            `Whether ${probe.part.label} has a line that must stay above the soil is not known.`,
            spots,
          );
        else if (lineMark === 1)
          report.find(
            'note',
            `${probe.part.label} has a line: push it in no further, keep its plug above the soil and sealed, and let its cable hang in a drip loop.`,
            spots,
          );
        else report.fine();
      }
    },
  },
  {
    id: 'humidity-in-soil',
    title: 'No air probe is buried',
    why: 'Soil air is near saturation even in dry soil: an air-humidity probe in the ground always says wet.',
    run: (circuit, report) => {
      for (const probe of partsWith(circuit, 'humidity probe')) {
        if (probe.part.stands?.list === 'probes')
          report.find(
            'fault',
            `${probe.part.label} is an air-humidity probe in a plot’s soil. It will always say wet; take a soil probe, and hang this one in the shade beside the plant.`,
            spotsOf(probe).slice(0, 1),
          );
        else report.fine();
      }
    },
  },
  {
    id: 'cable-label',
    title: 'Every cable has a label and a colour at both ends',
    why: 'Two cables that look alike are swapped the day before the holiday.',
    run: (circuit, report) => {
      const seen = new Map<string, string>();
      for (const cable of circuit.netlist.cables) {
        const spots = circuit.netlist.wires
          .filter((wire) => wire.cableId === cable.id)
          .flatMap((wire) => [wire.from, wire.to])
          .flatMap((end): Spot[] => {
            const placed = circuit.parts.get(end.part);
            const spot = placed && spotAt(placed, end.terminal);
            return spot ? [spot] : [];
          });
        const twin = seen.get(cable.label);
        if (twin !== undefined)
          report.find(
            'caution',
            `Two cables are called ${cable.label}. Give one another name before you print the labels.`,
            spots,
          );
        else if (cable.colour === 'none')
          report.find('note', `Cable ${cable.label} has no colour tag.`, spots);
        else report.fine();
        seen.set(cable.label, cable.id);
      }
    },
  },
  {
    id: 'mains',
    title: 'Nothing of the mains is wired here',
    why: 'Mains kills, and wet hands and earth make it easy.',
    run: (circuit, report) => {
      for (const spot of allSpots(circuit)) {
        if (!isType(spot, 'mains')) continue;
        if (isWired(circuit, spot))
          report.find(
            'danger',
            `${nameOf(spot)} has a wire on it. Take it off: a grow light is switched only by a ready-made certified plug, which the board tells by radio. For anything else call a licensed electrician.`,
            [spot, ...others(circuit, spot)],
          );
        else
          report.find(
            'note',
            `${spot.placed.part.label}: bought ready-made and certified, behind residual-current protection, above any water, as your local code says. For anything else call a licensed electrician.`,
            [spot],
          );
      }
      for (const supply of partsWith(circuit, 'supply'))
        report.find(
          'note',
          `${supply.part.label}: a ready-made certified one, indoors or in a dry box, behind residual-current protection. Only its low-voltage side comes outside.`,
          spotsOf(supply).slice(0, 1),
        );
    },
  },
  {
    id: 'drinking-water',
    title: 'Drinking water is kept apart',
    why: 'What stands in the pot can be sucked back into the house’s pipes.',
    run: (circuit, report, { tapWater }) => {
      const wet = partsWith(circuit, 'valve', 'pump');
      if (wet.length === 0) return;
      const spots = wet.flatMap((placed) => spotsOf(placed).slice(0, 1));
      if (tapWater === null)
        report.unknown(
          'Whether the water comes from a drinking-water pipe is not said: answer it in the interview under Parts.',
          spots,
        );
      else if (tapWater)
        report.find(
          'caution',
          `${listOf(wet.map((one) => one.part.label))} ${wet.length === 1 ? 'takes' : 'take'} water from a drinking-water pipe: a backflow preventer is needed between, as your local code says.`,
          spots,
        );
      else report.fine();
    },
  },
  {
    id: 'lithium',
    title: 'Lithium cells are protected, and not charged in frost',
    why: 'Emptied too far, charged by the wrong thing or below freezing they catch fire, sometimes days later.',
    run: (circuit, report, { frost }) => {
      for (const battery of partsWith(circuit, 'battery')) {
        if (!/lithium/i.test(battery.entry.name)) {
          report.fine();
          continue;
        }
        const { label } = battery.part;
        const spots = battery.spots.slice(0, 1);
        const isProtected = fact(battery, 'hasProtection');
        const isCharged = partsWith(circuit, 'solar').some((panel) =>
          panel.spots.some((spot) => isWired(circuit, spot)),
        );
        if (isProtected === null)
          report.unknown(
            `Whether ${label} has protection of its own is not known: look at its sheet.`,
            spots,
          );
        else if (isProtected === 0)
          report.find(
            'danger',
            `${label} has no protection: nothing keeps it from being emptied too far, and the next charge can set it alight. Take a cell with its own protection.`,
            spots,
            {
              remedies: [
                {
                  kind: 'replace',
                  label: 'Take a cell with protection',
                  part: battery.part.id,
                  entryId: 'battery-lithium',
                },
              ],
            },
          );
        else if (frost === true && isCharged)
          report.find(
            'danger',
            `${label} is charged by the sun where it freezes: below 0 °C lithium is ruined by charging and can burn later. Take it in for the winter, take a charger that stops at 0 °C, or a lead-acid battery.`,
            spots,
          );
        else
          report.find(
            'note',
            `${label} is a lithium cell: a charger made for it, a fuse, no charging below 0 °C, no sun on it, and not in the living room unwatched.`,
            spots,
          );
      }
    },
  },
  {
    id: 'fail-safe',
    title: 'A loose wire of a float reads as “no water”',
    why: 'A guard that fails to the dry side stops the pump; one that fails to the wet side lets it run dry, or over.',
    run: (circuit, report) => {
      for (const float of partsWith(circuit, 'contact'))
        if (/float/i.test(float.entry.name))
          report.find(
            'note',
            `${float.part.label}: fit it so that its contact is closed while there is water. Then a loose wire reads as “no water”, and the pump stays off. If yours closes when the tank is empty, turn it over on its pivot.`,
            float.spots.slice(0, 1),
          );
    },
  },
  {
    id: 'siphon',
    title: 'No tank can empty itself',
    why: 'Where the tube’s end lies below the water in the tank, the water runs on after the pump stops.',
    run: (circuit, report) => {
      for (const pump of partsWith(circuit, 'pump'))
        report.find(
          'note',
          `${pump.part.label}: let the tube end above the highest water in the tank, or fit a siphon break; a check valve keeps the tube full but does not stop a siphon.`,
          spotsOf(pump).slice(0, 1),
        );
    },
  },
];

function needsItsLeads(spot: Spot): boolean {
  return (
    isBareSensor(spot.placed) ||
    (hasRole(
      spot.placed,
      'LED',
      'diode',
      'fuse',
      'resistor',
      'divider',
      'shunt',
      'pull-ups',
      'battery monitor',
    ) &&
      spot.terminal.type === 'lead')
  );
}
