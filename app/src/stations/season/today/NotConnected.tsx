import { Link } from 'react-router';
import { useGarden } from '../../../data/gardenContext.ts';
import { sheetPath } from '../../../frame/stations.ts';
import { useLiveTools } from '../../../links/liveContext.ts';
import { Button } from '../../../ui/Button.tsx';

/** How to hear the boards from here. */
export function NotConnected({ hasGateway }: { hasGateway: boolean }) {
  const { garden } = useGarden();
  const { openGateway, elsewhere } = useLiveTools();
  if (elsewhere)
    return <p className="text-soft">This garden is connected in another tab: look there, or close it.</p>;
  return (
    <div className="mt-2 flex flex-wrap items-center gap-x-4 gap-y-2">
      {hasGateway && (
        <Button look="primary" onClick={() => void openGateway()}>
          Listen to the boards over the network
        </Button>
      )}
      <Link
        className="font-semibold underline underline-offset-4"
        to={sheetPath(garden.id, 'bench', 'readout', null)}
      >
        Choose what to read on Bench, Readout
      </Link>
    </div>
  );
}
