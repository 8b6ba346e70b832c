import { SPEEDS, type Clock, type Hands } from '../../../links/lineSource.ts';
import { useLive, useLiveTools } from '../../../links/liveContext.ts';
import { Button } from '../../../ui/Button.tsx';
import { Choice } from '../../../ui/Choice.tsx';
import { useKeys } from '../../../ui/keys.ts';

const POUR_ML = 50;
const SITS = {
  soil: 'in the soil',
  air: 'out in the air',
  jar: 'in the jar, up to its line',
  hand: 'between your fingers',
} as const;

/** What a hand can do to a stand-in: pour, pull out, dip, push back in, and turn its clock faster. */
export function StandInControls({
  hands,
  plotId,
  probeId,
}: {
  hands: Hands;
  plotId: string;
  probeId: string;
}) {
  const { session } = useLiveTools();
  useLive();
  const place = hands.placeOf(probeId);
  const pour = () => {
    hands.pour(plotId, POUR_ML);
    session.handled();
  };
  const move = (to: 'soil' | 'air' | 'jar') => () => {
    hands.move(probeId, to);
    session.handled();
    session.refresh();
  };
  useKeys([
    { key: 'p', does: `Pour ${POUR_ML} ml on the stand-in’s plot`, run: pour },
    {
      key: 'u',
      does: 'Pull the stand-in’s probe out, or push it back in',
      run: move(place === 'soil' ? 'air' : 'soil'),
    },
    { key: 'j', does: 'Put the stand-in’s probe in the jar of water', run: move('jar') },
  ]);
  return (
    <>
      <Button hint="P" onClick={pour}>
        Pour {POUR_ML} ml
      </Button>
      {place === 'soil' ? (
        <Button hint="U" onClick={move('air')}>
          Pull the probe out
        </Button>
      ) : (
        <Button hint="U" onClick={move('soil')}>
          Push it back in
        </Button>
      )}
      {place === 'jar' ? (
        <Button onClick={move('air')}>Lift it out of the jar</Button>
      ) : (
        <Button hint="J" onClick={move('jar')}>
          Into the water jar
        </Button>
      )}
      <span className="sr-only" role="status">
        The probe is {SITS[place]}.
      </span>
    </>
  );
}

/** The stand-in's clock: as fast as the one on the wall, or faster. */
export function StandInClock({ clock }: { clock: Clock }) {
  const { session } = useLiveTools();
  useLive();
  return (
    <Choice
      legend="Clock"
      showLegend
      options={SPEEDS.map((value) => ({ value, label: `×${value}` }))}
      value={clock.speed}
      onChange={(speed) => {
        clock.setSpeed(speed);
        session.refresh();
      }}
    />
  );
}
