import { useEffect, useMemo, useRef, useState, type ReactNode } from 'react';
import { forComment } from '@plain-trowel/core/sketch/safeText';
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

/** A setting that somebody asked for: its name, and the line of the garden that it belongs to. */
export type Wanted = { readonly field: string; readonly of: string };

/** A file of a program. Numbers of the settings lay on the slip what they are and where they are set. */
export function CodeView({
  file,
  language,
  wanted,
}: {
  readonly file: SketchFile;
  readonly language: Language;
  readonly wanted: Wanted | null;
}) {
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
  const found = useMemo(() => (wanted ? placeOf(file, wanted) : -1), [file, wanted]);
  const view = useRef<HTMLPreElement>(null);
  useEffect(() => {
    view.current?.querySelector('mark')?.scrollIntoView({ block: 'center' });
  }, [found]);
  return (
    <pre
      ref={view}
      aria-label={file.name}
      tabIndex={0}
      className="mt-1 max-h-[560px] overflow-auto border border-rule bg-paper-2 p-3 font-mono text-[13px] leading-[1.5]"
    >
      {lines.map((tokens, at) => (
        <Marked key={at} isFound={at === found}>
          <Line at={at} tokens={tokens} isOwn={file.isOwn} />
        </Marked>
      ))}
    </pre>
  );
}

function Marked({ isFound, children }: { readonly isFound: boolean; readonly children: ReactNode }) {
  return isFound ? <mark className="bg-chaff text-ink">{children}</mark> : children;
}

/** `start_tenths=450,` in one language, `450,  // start_tenths` in the other. */
const ASSIGNED = /^(\s*([a-z_]+)=)(-?\d+)(,)$/;
const COMMENTED = /^(\s*)(-?\d+)(, {2}\/\/ ([a-z_]+))$/;

type Setting = {
  readonly before: string;
  readonly name: string;
  readonly value: string;
  readonly after: string;
};
function settingIn(text: string): Setting | null {
  const assigned = ASSIGNED.exec(text);
  if (assigned) {
    const [, before = '', name = '', value = '', after = ''] = assigned;
    return { before, name, value, after };
  }
  const commented = COMMENTED.exec(text);
  if (!commented) return null;
  const [, before = '', value = '', after = '', name = ''] = commented;
  return { before, name, value, after };
}

/** The first setting of that name after the comment that names its line; -1: it stands in another file. */
function placeOf(file: SketchFile, { field, of }: Wanted): number {
  const lines = file.text.split('\n');
  const named = lines.findIndex((line) => /^\s*(#|\/\/) /.test(line) && line.trim().endsWith(forComment(of)));
  if (!file.isOwn || named < 0) return -1;
  return lines.findIndex((line, at) => at > named && settingIn(line)?.name === field);
}

function Line({
  at,
  tokens,
  isOwn,
}: {
  readonly at: number;
  readonly tokens: readonly Token[];
  readonly isOwn: boolean;
}) {
  const setting = isOwn ? settingIn(tokens.map(({ text }) => text).join('')) : null;
  const worked = setting ? fieldWorked(setting.name, Number(setting.value)) : null;
  if (setting && worked)
    return (
      <>
        {setting.before}
        <WorkedNumber id={`sketch ${at}`} worked={worked} shown={setting.value} />
        {setting.after}
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
