import { useRef, useState } from 'react';
import type { Verdict } from '@plain-trowel/core/wiring/checks/all';
import { download, fileNameOf } from '../../../data/download.ts';
import { Button } from '../../../ui/Button.tsx';
import { Choice } from '../../../ui/Choice.tsx';
import { showToast } from '../../../ui/toasts.ts';
import { fullDay } from '@plain-trowel/core/quantity/timeText';
import type { usePlan } from '../usePlan.ts';
import { labelPages } from './LabelPages.tsx';
import type { PaperName } from '../../../paper/paper.ts';
import { PlacementFields } from './PlacementFields.tsx';
import { placementPages } from './PlacementPages.tsx';
import { pngBlob, svgText } from '../../../paper/saveSheet.ts';
import { wiresOf, type Selected } from '../wiring/picture/selection.ts';
import type { LitOnPaper } from './HubDrawing.tsx';
import { wiringPages } from './WiringPages.tsx';

type Kind = 'wiring' | 'labels' | 'placement';
const KINDS = [
  { value: 'wiring', label: 'wiring sheet' },
  { value: 'labels', label: 'cable labels' },
  { value: 'placement', label: 'placement sheet' },
] as const;

/** The sheets for the bench and the garden, as they come out of the printer. */
export function PaperView({
  plan,
  verdict,
  selected,
  onSelect,
}: {
  plan: ReturnType<typeof usePlan>;
  /** Null while it is worked out: no sheet says what is not known yet. */
  verdict: Verdict | null;
  selected: Selected;
  onSelect: (selected: Selected) => void;
}) {
  const [kind, setKind] = useState<Kind>('wiring');
  const [paper, setPaper] = useState<PaperName>('A4');
  const holder = useRef<HTMLDivElement>(null);
  const pages = usePages(plan, verdict, kind, paper, {
    wires: wiresOf(selected, plan.wiring),
    onPress: (id) => onSelect({ kind: 'wire', id }),
  });
  const name = `${fileNameOf(plan.garden.name)}.${kind}`;
  const save = async (as: 'svg' | 'png') => {
    const drawn = [...(holder.current?.querySelectorAll<SVGSVGElement>('svg.sheet-page') ?? [])];
    try {
      for (const [at, page] of drawn.entries()) {
        const file = `${name}${drawn.length > 1 ? `-${at + 1}` : ''}.${as}`;
        if (as === 'svg') download(file, await svgText(page), 'image/svg+xml');
        else download(file, await pngBlob(page), 'image/png');
      }
    } catch {
      showToast({
        tone: 'problem',
        text: 'The browser could not draw the sheet as a picture. Save it as SVG, or print it.',
      });
    }
  };
  return (
    <>
      <div className="no-print mb-4 flex flex-wrap items-center gap-x-4 gap-y-2">
        <Choice legend="Sheet" options={KINDS} value={kind} onChange={setKind} />
        <Choice
          legend="Paper"
          options={[
            { value: 'A4', label: 'A4' },
            { value: 'Letter', label: 'Letter' },
          ]}
          value={paper}
          onChange={setPaper}
        />
        <span className="flex gap-2">
          <Button look="primary" onClick={() => window.print()}>
            Print
          </Button>
          <Button onClick={() => void save('svg')}>Save as SVG</Button>
          <Button onClick={() => void save('png')}>Save as PNG</Button>
        </span>
      </div>
      {kind === 'placement' && <PlacementFields plan={plan} />}
      <div ref={holder} className={`sheet-stack paper-${paper}`}>
        {pages ?? <p className="text-soft">Drawing the sheet …</p>}
      </div>
    </>
  );
}

function usePages(
  { circuit, garden }: ReturnType<typeof usePlan>,
  verdict: Verdict | null,
  kind: Kind,
  paper: PaperName,
  lit: LitOnPaper,
) {
  const [nowMs] = useState(() => Date.now());
  const subtitle = `${garden.name}, ${fullDay(nowMs, garden.timeZone)}.`;
  if (kind === 'labels') return labelPages({ circuit, paper, subtitle });
  if (kind === 'placement') return placementPages({ garden, paper, subtitle });
  return verdict && wiringPages({ circuit, verdict, paper, subtitle, lit });
}
