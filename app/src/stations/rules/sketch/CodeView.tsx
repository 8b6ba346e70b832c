import { useEffect, useMemo, useState } from 'react';
import { WorkedNumber } from '../../../frame/WorkedNumber.tsx';
import { fieldWorked } from '../../../words/fieldText.ts';
import type { Token } from './highlight.ts';
import type { Language, SketchFile } from './sketchFiles.ts';

type Lines = readonly (readonly Token[])[];
type Highlighter = { readonly tokenLines: (language: Language, text: string) => Lines };

/** Bold where the language speaks, soft where a person is spoken to. */
const LOOKS: Readonly<Record<string, string>> = {
  comment: 'text-soft italic',
  keyword: 'font-semibold',
  literal: 'font-semibold',
  built_in: 'font-semibold',
  meta: 'font-semibold',
};

/** A file of a program. Numbers of the settings lay on the slip what they are and where they are set. */
export function CodeView({ file, language }: { readonly file: SketchFile; readonly language: Language }) {
  const [highlighter, setHighlighter] = useState<Highlighter | null>(null);
  useEffect(() => {
    let left = false;
    // Without it the code is plain, and no less true.
    import('./highlight.ts').then(
      ({ tokenLines }) => {
        if (!left) setHighlighter({ tokenLines });
      },
      () => undefined,
    );
    return () => {
      left = true;
    };
  }, []);
  const lines = useMemo(
    (): Lines =>
      highlighter?.tokenLines(language, file.text) ??
      file.text.split('\n').map((text) => [{ text, kind: '' }]),
    [highlighter, language, file],
  );
  return (
    <pre
      aria-label={file.name}
      tabIndex={0}
      className="mt-1 max-h-[560px] overflow-auto border border-rule bg-paper-2 p-3 font-mono text-[13px] leading-[1.5]"
    >
      {lines.map((tokens, at) => (
        <Line key={at} at={at} tokens={tokens} isOwn={file.isOwn} />
      ))}
    </pre>
  );
}

const SETTING = /^(\s*([a-z_]+)=)(-?\d+)(,)$/;

function Line({
  at,
  tokens,
  isOwn,
}: {
  readonly at: number;
  readonly tokens: readonly Token[];
  readonly isOwn: boolean;
}) {
  const setting = isOwn ? SETTING.exec(tokens.map(({ text }) => text).join('')) : null;
  const worked = setting ? fieldWorked(setting[2] ?? '', Number(setting[3])) : null;
  if (setting && worked)
    return (
      <>
        {setting[1]}
        <WorkedNumber id={`sketch ${at}`} worked={worked} shown={setting[3] ?? ''} />
        {setting[4]}
        {'\n'}
      </>
    );
  return (
    <>
      {tokens.map(({ text, kind }, place) =>
        LOOKS[kind] ? (
          <span key={place} className={LOOKS[kind]}>
            {text}
          </span>
        ) : (
          text
        ),
      )}
      {'\n'}
    </>
  );
}
