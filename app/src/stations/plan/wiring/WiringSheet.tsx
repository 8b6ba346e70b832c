import { useState } from 'react';
import { applyRemedy } from '@plain-trowel/core/wiring/edit';
import type { Finding } from '@plain-trowel/core/wiring/finding';
import type { Blocked } from '@plain-trowel/core/wiring/planPins';
import { useView, Views } from '../../../ui/Views.tsx';
import { PaperView } from '../sheets/PaperView.tsx';
import { provedText } from '../../../words/wiringText.ts';
import { usePlan } from '../usePlan.ts';
import { BuildView } from './build/BuildView.tsx';
import { CableTable } from './CableTable.tsx';
import { FindingList, isSame } from './FindingList.tsx';
import type { Selected } from './picture/selection.ts';
import { PictureView } from './PictureView.tsx';
import { PlanBar } from './PlanBar.tsx';
import { SumsView } from './sums/SumsView.tsx';
import { useVerdict, type Checked } from './useVerdict.ts';
import { WireTable } from './WireTable.tsx';

const VIEWS = ['picture', 'table', 'cables', 'build', 'sums', 'paper'] as const;

/** Will it survive being connected? The wiring as picture and as table, with every check. */
export default function WiringSheet() {
  const plan = usePlan();
  const view = useView(VIEWS);
  const [opened, setOpened] = useState<Finding | null>(null);
  // A part or a wire, chosen in the picture, in a list or on paper, is lit in all of them.
  const [selected, setSelected] = useState<Selected>(null);
  const [blocked, setBlocked] = useState<readonly Blocked[]>([]);
  const { wiring } = plan;
  const checked = useVerdict(plan);
  const { verdict, latest } = checked;
  // A finding that was mended is gone, and its light with it.
  const open = opened && (latest?.findings.find((one) => isSame(one, opened)) ?? null);
  const findings = latest && (
    <FindingList
      verdict={latest}
      isOld={verdict === null}
      open={open}
      onOpen={(finding) => {
        setOpened(finding);
        // What it means is looked at now, not what was chosen before.
        setSelected(null);
      }}
      onMend={(remedy) =>
        void plan.changeWiring(
          remedy.label,
          (held) => applyRemedy(held, plan.catalogue, remedy),
          `${remedy.label}: done.`,
        )
      }
    />
  );
  return (
    <>
      <header className="no-print mb-1 border-b border-ink pb-2.5">
        <h1 aria-live="polite">{headline(plan, checked)}</h1>
        {wiring.parts.length > 0 && (
          <p className="text-soft">
            {wiring.parts.length} parts, {wiring.wires.length} wires, {wiring.cables.length} cables.
          </p>
        )}
      </header>
      <Views
        label="Views of Wiring"
        open={view}
        views={[
          { id: 'picture', name: 'Picture' },
          { id: 'table', name: 'Table' },
          { id: 'cables', name: 'Cables' },
          { id: 'build', name: 'Build' },
          { id: 'sums', name: 'Sums' },
          { id: 'paper', name: 'Paper' },
        ]}
      />
      {(view === 'picture' || view === 'table') && (
        <PlanBar plan={plan} checked={checked} blocked={blocked} onBlocked={setBlocked} />
      )}
      {view === 'picture' && wiring.parts.length > 0 && (
        <PictureView
          plan={plan}
          open={open}
          selected={selected}
          onSelect={setSelected}
          // Until the first verdict is there the picture keeps the place it will have beside a list.
          hasFindings={latest?.findings.some((one) => one.severity !== 'note') ?? true}
        >
          {findings}
        </PictureView>
      )}
      {view === 'table' && wiring.parts.length > 0 && (
        <>
          <WireTable plan={plan} selected={selected} onSelect={setSelected} />
          <div className="mt-6">{findings}</div>
        </>
      )}
      {view === 'cables' && <CableTable plan={plan} />}
      {view === 'build' && (
        <BuildView
          plan={plan}
          onSelect={setSelected}
          faults={
            verdict
              ? verdict.findings.filter(({ severity }) => severity === 'danger' || severity === 'fault')
                  .length
              : null
          }
        />
      )}
      {view === 'sums' && <SumsView />}
      {view === 'paper' && (
        <PaperView plan={plan} verdict={verdict} selected={selected} onSelect={setSelected} />
      )}
    </>
  );
}

function headline({ wiring }: ReturnType<typeof usePlan>, { verdict, failed }: Checked): string {
  if (wiring.parts.length === 0) return 'No wiring yet';
  if (failed) return 'Nothing is checked: the checks could not run. Load the page again';
  return verdict ? provedText(verdict) : 'Checking the wiring …';
}
