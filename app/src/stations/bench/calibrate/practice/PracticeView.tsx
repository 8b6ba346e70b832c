import { useState } from 'react';
import { judgeDrill, type Slot } from '@plain-trowel/core/calibration/drill';
import { formatCounts, formatNumber } from '@plain-trowel/core/quantity/format';
import {
  connectorIsWet,
  DRILL_PLACES,
  DRILL_SUPPLIES,
  drips,
  feedDrill,
  moveDrill,
  pourDrill,
  wipeConnector,
  type DrillPlace,
} from '@plain-trowel/standins/drill/drillBench';
import type { Condition } from '@plain-trowel/core/calibration/conditions';
import { Button } from '../../../../ui/Button.tsx';
import { Check } from '../../../../ui/Check.tsx';
import { Choice } from '../../../../ui/Choice.tsx';
import { useKeys } from '../../../../ui/keys.ts';
import { restText } from '../../../../words/handsFreeText.ts';
import { VERDICT_WORDS, verdictText } from '../../../../words/settlingText.ts';
import { StepPicture } from '../StepPicture.tsx';
import { DrillVerdict } from './DrillVerdict.tsx';
import { useDrill } from './useDrill.ts';
import { hasStopped } from '@plain-trowel/core/settling/settlingWatch';

const PICTURES: Readonly<Record<DrillPlace, Condition>> = {
  air: 'air',
  jar: 'water',
  'past the line': 'water',
  'oven-dry sample': 'dry soil',
  pot: 'just right',
};
const POUR_ML = 100;

/** Calibrating without a probe and without harm: three minutes on a bench in the page, every usual mistake within reach, and what each would have cost. */
export function PracticeView() {
  const [speed, setSpeed] = useState(1);
  const drill = useDrill(speed);
  const { bench, settling, captures } = drill;
  const [judged, setJudged] = useState(false);
  const isStill = hasStopped(settling.verdict);
  const ready = captures.dry && captures.wet;
  const judge = () => setJudged(Boolean(ready));
  const [byItself, setByItself] = useState(true);
  const capture = (slot: Slot) => {
    setJudged(false);
    // Pressed once it waits for rest; pressed again it takes what there is.
    if (byItself && drill.waitsFor !== slot) drill.session.waitFor(slot);
    else drill.session.capture(slot);
  };
  const again = () => {
    setJudged(false);
    drill.session.again();
  };
  useKeys([
    { key: 'd', does: 'Capture as dry', run: () => capture('dry') },
    { key: 'w', does: 'Capture as wet', run: () => capture('wet') },
    { key: 'j', does: 'Judge what was captured', run: judge },
    { key: 'r', does: 'Start the practice again', run: again },
  ]);
  return (
    <section aria-label="Practice">
      <h2>Practice: a dry and a wet reference, in three minutes</h2>
      <p className="max-w-[68ch] text-soft">
        A made-up probe, air, a jar, an oven-dry sample and a pot. Capture a dry and a wet reference that
        belong together: air and water, or dry sample and soaked pot. Every usual mistake can be made here;
        none is told before the end.
      </p>
      <div className="mt-3 flex flex-wrap items-start gap-x-6 gap-y-3">
        <StepPicture
          pastLine={bench.place === 'past the line'}
          condition={bench.place === 'pot' && drips(bench) ? 'soaked soil' : PICTURES[bench.place]}
        />
        <div className="min-w-[280px] flex-1">
          <p>
            <span className="num text-[40px] leading-none font-semibold text-handle">
              {formatCounts(drill.value)}
            </span>{' '}
            <span className="text-soft">raw counts</span>
          </p>
          <p className="mt-1 border-l-[3px] border-ink pl-3 text-[15px]">
            <b className={`font-semibold ${isStill ? 'text-leaf' : ''}`}>
              {VERDICT_WORDS[settling.verdict].replace(/^./, (letter) => letter.toUpperCase())}.
            </b>{' '}
            {verdictText(settling)}
          </p>
          <p className="mt-1 text-[14px] text-soft">
            The probe is {bench.place === 'pot' ? 'in the pot' : `in ${PLACE_WORDS[bench.place]}`}, fed with{' '}
            {formatNumber(bench.supplyV, 1)} V; its connector is {connectorIsWet(bench) ? 'wet' : 'dry'}. The
            pot has had {bench.pouredMl} ml{drips(bench) ? ' and drips' : ''}.
          </p>
        </div>
      </div>
      <div className="mt-3 flex flex-wrap items-center gap-x-5 gap-y-2">
        <Choice
          legend="Put it"
          showLegend
          options={DRILL_PLACES.map((value) => ({ value, label: value }))}
          value={bench.place}
          onChange={(place) => drill.session.change((now) => moveDrill(now, place))}
        />
        <Button onClick={() => drill.session.change((now) => pourDrill(now, POUR_ML))}>
          Pour {POUR_ML} ml on the pot
        </Button>
        <Button disabled={!connectorIsWet(bench)} onClick={() => drill.session.change(wipeConnector)}>
          Wipe the connector
        </Button>
        <Choice
          legend="Supply"
          showLegend
          options={DRILL_SUPPLIES.map((value) => ({ value, label: `${value} V` }))}
          value={bench.supplyV}
          onChange={(supplyV) => drill.session.change((now) => feedDrill(now, supplyV))}
        />
        <Choice
          legend="Clock"
          showLegend
          options={[1, 5].map((value) => ({ value, label: `×${value}` }))}
          value={speed}
          onChange={setSpeed}
        />
      </div>
      <div className="mt-3 flex flex-wrap items-center gap-3 border-t border-rule pt-3">
        {(['dry', 'wet'] as const).map((slot) => (
          <Button key={slot} hint={slot === 'dry' ? 'D' : 'W'} onClick={() => capture(slot)}>
            {byItself && drill.waitsFor !== slot ? `In place: take it as ${slot}` : `Capture as ${slot}`}
            {captures[slot] && <span className="num">({formatCounts(captures[slot].rawCounts)})</span>}
          </Button>
        ))}
        <Button look="primary" hint="J" disabled={!ready} onClick={judge}>
          Judge it
        </Button>
        <Button look="quiet" hint="R" onClick={again}>
          Start again
        </Button>
      </div>
      <div className="mt-2 flex flex-wrap items-center gap-x-5 gap-y-1 text-[14.5px]">
        <Check
          checked={byItself}
          onChange={(on) => {
            setByItself(on);
            drill.session.waitFor(null);
          }}
        >
          hands-free: taken once it rests, as on a real probe
        </Check>
        {drill.waitsFor && (
          <span role="status">
            Waiting to take it as {drill.waitsFor} once it rests. Now: {restText(drill.answer)}.
          </span>
        )}
      </div>
      {judged && captures.dry && captures.wet && (
        <DrillVerdict drill={judgeDrill({ dry: captures.dry, wet: captures.wet })} />
      )}
    </section>
  );
}

const PLACE_WORDS: Readonly<Record<DrillPlace, string>> = {
  air: 'the air',
  jar: 'the jar, up to its line',
  'past the line': 'the jar, past its line',
  'oven-dry sample': 'the oven-dry sample',
  pot: 'the pot',
};
