/** THIRD-PARTY.txt: the licences of everything that is shipped to the browser, written by the build from the packages themselves. */
import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import type { Plugin } from 'vite';

type Package = {
  readonly name: string;
  readonly version: string;
  readonly license?: string;
  readonly dependencies?: Readonly<Record<string, string>>;
};

/** The workspaces whose code ends up in the page. */
const SHIPPED = ['app', 'core', 'standins'];
/** Put into the style sheet by the build though it is no dependency of the page. */
const IN_STYLES = ['tailwindcss'];

const read = (folder: string) => JSON.parse(readFileSync(join(folder, 'package.json'), 'utf8')) as Package;

/** The folder of a package as one that lies in `from` would find it; null when it is not installed. */
function folderOf(name: string, from: string): string | null {
  for (const base of createRequire(join(from, 'package.json')).resolve.paths(name) ?? []) {
    const folder = join(base, name);
    if (existsSync(join(folder, 'package.json'))) return folder;
  }
  return null;
}

function licenceText(folder: string): string {
  const file = readdirSync(folder).find((name) => /^(licen[cs]e|copying|ofl)(\.|-|$)/i.test(name));
  return file ? readFileSync(join(folder, file), 'utf8').trim() : '';
}

/** Every package that the workspaces under `root` ship, with all that these rest on, by name. */
export function thirdPartyText(root: string): string {
  const found = new Map<string, string>();
  const visit = (folder: string, names: readonly string[]) => {
    for (const name of names) {
      if (name.startsWith('@plain-trowel/')) continue;
      const inside = folderOf(name, folder);
      if (!inside || found.has(inside)) continue;
      found.set(inside, name);
      visit(inside, Object.keys(read(inside).dependencies ?? {}));
    }
  };
  for (const workspace of SHIPPED) {
    const folder = join(root, workspace);
    visit(folder, Object.keys(read(folder).dependencies ?? {}));
  }
  visit(join(root, 'app'), IN_STYLES);
  const entries = [...found.keys()]
    .map((folder) => ({ ...read(folder), text: licenceText(folder) }))
    .sort((a, b) => a.name.localeCompare(b.name));
  const own = readFileSync(join(root, 'LICENSE'), 'utf8').trim();
  const line = '-'.repeat(78);
  return [
    `Plain Trowel\n\n${own}`,
    'It is made with the packages below. Each keeps its own licence.',
    ...entries.map(
      ({ name, version, license, text }) =>
        `${line}\n${name} ${version}, ${license ?? 'see below'}\n\n${text === '' ? `Licence: ${license ?? 'not said'}` : text}`,
    ),
  ].join('\n\n');
}

export const thirdParty = (): Plugin => ({
  name: 'third-party',
  apply: 'build',
  generateBundle() {
    this.emitFile({
      type: 'asset',
      fileName: 'THIRD-PARTY.txt',
      source: `${thirdPartyText(dirname(import.meta.dirname))}\n`,
    });
  },
});
