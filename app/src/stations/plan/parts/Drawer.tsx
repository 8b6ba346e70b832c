import { CANDIDATES, TOPICS } from '@plain-trowel/core/plan/rules';
import { withPieces } from '@plain-trowel/core/plan/suggest';
import { Button } from '../../../ui/Button.tsx';
import { CellNumber } from '../../../ui/CellNumber.tsx';
import { Field } from '../../../ui/Field.tsx';
import { Scroll } from '../../../ui/Scroll.tsx';
import type { usePlan } from '../usePlan.ts';

/** What one may have already, by what the ranking chooses between, and what waters. */
const COMMON = ['pump-5v', 'pump-12v', 'valve-24vac', 'switch-mosfet', 'switch-relay-high', 'regulator-5v'];
const OFFERED = [
  ...new Set([
    ...TOPICS.filter((topic) => topic !== 'link').flatMap((topic) =>
      CANDIDATES[topic].flatMap((candidate) => candidate.split(' ')),
    ),
    ...COMMON,
  ]),
];

/** What lies in the drawer already: it speaks for itself in the ranking, and is not bought again. */
export function Drawer({ plan }: { plan: ReturnType<typeof usePlan> }) {
  const { drawer } = plan.plan;
  const put = (key: string, count: number | null) =>
    void plan.changePlan(`in the drawer: ${key}`, (held) => ({
      drawer: withPieces(held.drawer, key, count ?? 0),
    }));
  const nameOf = (key: string) => plan.catalogue.get(key)?.name ?? key;
  const open = OFFERED.filter((id) => plan.catalogue.has(id) && !(id in drawer));
  return (
    <section className="mt-6">
      <h3 className="font-semibold">In the drawer already</h3>
      <p className="mb-2 max-w-[60ch] text-[13.5px] text-soft">
        It speaks for itself in the ranking above, and the list buys only what is missing.
      </p>
      <Field label="Add what you have" className="max-w-[460px]">
        {(props) => (
          <select
            {...props}
            value=""
            onChange={(event) => event.target.value !== '' && put(event.target.value, 1)}
          >
            <option value="">choose a part …</option>
            {open.map((id) => (
              <option key={id} value={id}>
                {nameOf(id)}
              </option>
            ))}
          </select>
        )}
      </Field>
      {Object.keys(drawer).length > 0 && (
        <Scroll label="In the drawer">
          <table className="mt-2 max-w-[460px]">
            <thead>
              <tr>
                <th>Part</th>
                <th className="text-right">Pieces</th>
                <th>
                  <span className="sr-only">To do</span>
                </th>
              </tr>
            </thead>
            <tbody>
              {Object.entries(drawer).map(([key, count]) => (
                <tr key={key}>
                  <td>{nameOf(key)}</td>
                  <td className="text-right">
                    <CellNumber
                      label={`Pieces of ${nameOf(key)} in the drawer`}
                      value={count}
                      least={1}
                      most={1000}
                      decimals={0}
                      onKeep={(value) => put(key, value)}
                    />
                  </td>
                  <td className="text-right">
                    <Button
                      look="quiet"
                      className="min-h-0! py-0! text-[14px]!"
                      onClick={() => put(key, null)}
                      aria-label={`Take ${nameOf(key)} out of the list`}
                    >
                      remove
                    </Button>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </Scroll>
      )}
    </section>
  );
}
