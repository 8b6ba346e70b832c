/** Words of a program by what they are. */
import cpp from 'highlight.js/lib/languages/cpp';
import python from 'highlight.js/lib/languages/python';
import { createLowlight } from 'lowlight';
import type { Language } from './sketchFiles.ts';

const lowlight = createLowlight({ cpp, python });

export type Token = { readonly text: string; readonly kind: string };

type Node = ReturnType<typeof lowlight.highlight>['children'][number];

/** By line, from the whole text at once. */
export function tokenLines(language: Language, text: string): readonly (readonly Token[])[] {
  const lines: Token[][] = [[]];
  const { children } = lowlight.highlight(language === 'C++' ? 'cpp' : 'python', text);
  for (const token of children.flatMap((node) => flat(node, ''))) {
    const [first = '', ...others] = token.text.split('\n');
    lines.at(-1)?.push({ ...token, text: first });
    for (const other of others) lines.push([{ ...token, text: other }]);
  }
  return lines;
}

function flat(node: Node, kind: string): readonly Token[] {
  if (node.type === 'text') return [{ text: node.value, kind }];
  if (node.type !== 'element') return [];
  const names = node.properties.className;
  const own = Array.isArray(names) ? String(names[0]).replace('hljs-', '') : kind;
  return node.children.flatMap((child) => flat(child as Node, own));
}
