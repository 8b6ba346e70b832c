import { Scroll } from '../../../ui/Scroll.tsx';
import { Button } from '../../../ui/Button.tsx';
import { ColourFlag } from '../../../ui/ColourFlag.tsx';
import type { usePlan } from '../usePlan.ts';
import { PartPanel } from './PartPanel.tsx';
import type { Selected } from './picture/selection.ts';

/** Every part with what is on its terminals; the pins of a board are its pin plan. */
export function PartTable({
  plan,
  selected,
  onSelect,
}: {
  plan: ReturnType<typeof usePlan>;
  selected: Selected;
  onSelect: (selected: Selected) => void;
}) {
  const openId = selected?.kind === 'part' ? selected.id : null;
  const setOpenId = (id: string | null) => onSelect(id === null ? null : { kind: 'part', id });
  const { circuit } = plan;
  const open = openId === null ? null : (circuit.parts.get(openId) ?? null);
  const boards = [...circuit.parts.values()].filter((placed) => placed.entry.role === 'board');
  return (
    <>
      {boards.map((board) => (
        <section key={board.part.id} className="mb-4" aria-label={`Pins of ${board.part.label}`}>
          <h2>Pins of {board.part.label}</h2>
          <Scroll label={`Pins of ${board.part.label}`}>
            <table>
              <thead>
                <tr>
                  <th>Pin</th>
                  <th>Wired to</th>
                  <th>It can</th>
                  <th>Mind</th>
                </tr>
              </thead>
              <tbody>
                {board.spots.flatMap((spot) => {
                  const { terminal } = spot;
                  if (terminal.type !== 'pin') return [];
                  const on = circuit.netOf(spot.end).spots.filter((one) => one.placed !== board);
                  if (on.length === 0) return [];
                  const mind = [
                    terminal.strap === undefined ? '' : terminal.strap,
                    terminal.serial ? 'serial line' : '',
                    terminal.lostWithRadio ? 'no analog while the radio is on' : '',
                    terminal.highAtBoot ? 'high at start' : '',
                  ].filter((text) => text !== '');
                  return [
                    <tr key={terminal.id}>
                      <td className="num">{terminal.name}</td>
                      <td>{on.map((one) => `${one.placed.part.label} ${one.terminal.name}`).join(', ')}</td>
                      <td className="text-soft">{terminal.caps.join(', ')}</td>
                      <td className="text-soft">{mind.join('; ') || '–'}</td>
                    </tr>,
                  ];
                })}
              </tbody>
            </table>
          </Scroll>
        </section>
      ))}
      <h2 className="mt-4">Parts</h2>
      <ul className="mt-1 flex flex-wrap gap-x-4 gap-y-1">
        {[...circuit.parts.values()].map(({ part }) => (
          <li key={part.id}>
            <Button
              look="quiet"
              className="min-h-0! py-0.5! text-[14.5px]!"
              aria-expanded={part.id === openId}
              onClick={() => setOpenId(part.id === openId ? null : part.id)}
            >
              {part.colour !== 'none' && <ColourFlag colour={part.colour} />}
              {part.label}
            </Button>
          </li>
        ))}
      </ul>
      {open && <PartPanel key={open.part.id} plan={plan} placed={open} onGone={() => setOpenId(null)} />}
    </>
  );
}
