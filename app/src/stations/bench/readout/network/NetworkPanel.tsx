import { byId } from '@plain-trowel/core/quantity/byId';
import { useGarden } from '../../../../data/gardenContext.ts';
import { useLiveTools } from '../../../../links/liveContext.ts';
import { Button } from '../../../../ui/Button.tsx';
import {
  gatewayIssueText,
  mailboxText,
  mailboxWarnings,
  networkHeadline,
} from '../../../../words/networkText.ts';
import { BoardKeys } from './BoardKeys.tsx';
import { PassphraseForm } from './PassphraseForm.tsx';
import { PublishLine } from './PublishLine.tsx';
import { ReaderKey } from './ReaderKey.tsx';
import { useStanding } from './useStanding.ts';

/** Boards that report over the network to the gateway that this page comes from. */
export function NetworkPanel({ onOpened }: { onOpened: () => void }) {
  const { garden } = useGarden();
  const { openGateway } = useLiveTools();
  const { asked, lookAgain } = useStanding(garden.id);
  if (asked === null) return <p className="text-soft">Asking the gateway …</p>;
  if (!asked.ok)
    return asked.issue.kind === 'passphrase' ? (
      <PassphraseForm onEntered={() => void lookAgain()} />
    ) : (
      <p role="alert" className="max-w-[60ch] border-l-[3px] border-handle pl-3">
        {gatewayIssueText(asked.issue)}
      </p>
    );
  const standing = asked.value;
  const nameOf = (boardId: string) => byId(garden.boards, boardId)?.name ?? boardId;
  return (
    <div className="flex w-full max-w-[720px] flex-col items-start gap-4">
      <p className="max-w-[60ch] text-[17px] font-semibold">{networkHeadline(standing, nameOf)}</p>
      {mailboxWarnings(standing, garden.timeZone).map((text) => (
        <p key={text} role="alert" className="max-w-[60ch] border-l-[3px] border-handle pl-3">
          {text}
        </p>
      ))}
      <Button
        look="primary"
        disabled={standing.boards.length === 0}
        onClick={() => void openGateway().then(onOpened)}
      >
        Listen to these boards
      </Button>
      <BoardKeys standing={standing} onChanged={() => void lookAgain()} />
      <PublishLine standing={standing} onChanged={() => void lookAgain()} />
      <ReaderKey standing={standing} onChanged={() => void lookAgain()} />
      <p className="max-w-[65ch] text-[13.5px] text-soft">
        {mailboxText(standing)} What a browser has on its own disk need not stay there for it.
      </p>
    </div>
  );
}
