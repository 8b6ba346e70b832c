import { useState } from 'react';
import { gateway } from '../../../../links/gatewayClient.ts';
import { Button } from '../../../../ui/Button.tsx';
import { Field } from '../../../../ui/Field.tsx';
import { gatewayIssueText } from '../../../../words/networkText.ts';

/** Lets the owner in where the gateway is open to a network. */
export function PassphraseForm({ onEntered }: { onEntered: () => void }) {
  const [words, setWords] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  const [isAsking, setAsking] = useState(false);
  const enter = async () => {
    setAsking(true);
    const entered = await gateway.enter(words);
    setAsking(false);
    if (entered.ok) onEntered();
    else setProblem(gatewayIssueText(entered.issue));
  };
  return (
    <form
      className="flex flex-col items-start gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        void enter();
      }}
    >
      <Field
        label="Passphrase of the gateway"
        hint="As it was set on the gateway’s machine with npm start -- --set-passphrase."
        error={problem ?? undefined}
      >
        {(props) => (
          <input
            {...props}
            type="password"
            autoComplete="current-password"
            value={words}
            onChange={(event) => setWords(event.target.value)}
          />
        )}
      </Field>
      <Button look="primary" type="submit" disabled={words === '' || isAsking}>
        {isAsking ? 'Checking …' : 'Let me in'}
      </Button>
    </form>
  );
}
