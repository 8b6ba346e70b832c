import type { LetterShown } from '@plain-trowel/core/protocol/telling';
import { useGarden } from '../../../../../data/gardenContext.ts';
import { gateway } from '../../../../../links/gatewayClient.ts';
import { Button } from '../../../../../ui/Button.tsx';
import { letterText } from '../../../../../words/tellingText.ts';

/** Letters of the gateway: those that could not be sent first, then the latest few. */
export function LetterList({
  letters,
  onChanged,
}: {
  letters: readonly LetterShown[];
  onChanged: () => void;
}) {
  const { garden } = useGarden();
  if (letters.length === 0) return null;
  const isStuck = ({ state, tries }: LetterShown) => state === 'dead' || (state === 'waiting' && tries > 0);
  const shown = [...letters.filter(isStuck), ...letters.filter((one) => !isStuck(one))].slice(0, 12);
  const act = async (doing: Promise<unknown>) => {
    await doing;
    onChanged();
  };
  return (
    <>
      <h3 className="mt-3 text-[15px] font-semibold">Sent lately</h3>
      <ul aria-label="Letters of the gateway" className="mt-1 text-[14px]">
        {shown.map((letter) => (
          <li
            key={letter.id}
            className="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-rule py-1.5"
          >
            <span className="min-w-0 flex-1 basis-[38ch]">
              <span className="line-clamp-1">{letter.subject}</span>
              <span className={letter.state === 'dead' ? 'text-handle' : 'text-soft'}>
                {letterText(letter, garden.timeZone)}
              </span>
            </span>
            {letter.state !== 'sent' && (
              <>
                <Button onClick={() => void act(gateway.sendAgain(letter.id))}>
                  Try now<span className="sr-only">: {letter.subject}</span>
                </Button>
                <Button look="quiet" onClick={() => void act(gateway.dropLetter(letter.id))}>
                  Discard<span className="sr-only">: {letter.subject}</span>
                </Button>
              </>
            )}
          </li>
        ))}
      </ul>
    </>
  );
}
