/** The service worker beside the page, with the list of every file of the page: what it keeps, so that the page opens without a network. */
import { createHash } from 'node:crypto';
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Plugin } from 'vite';

const PLACE = '__PAGE_FILES__';
const WORKER = 'sw.js';

type PageFile = { readonly url: string; readonly revision: string | null };

const sumOf = (content: string | Uint8Array): string =>
  createHash('sha256').update(content).digest('hex').slice(0, 16);

/** Files under a folder, by their paths from there. */
function filesUnder(folder: string, below = ''): readonly string[] {
  return readdirSync(join(folder, below), { withFileTypes: true }).flatMap((one) => {
    const path = `${below}${one.name}`;
    return one.isDirectory() ? filesUnder(folder, `${path}/`) : [path];
  });
}

/** Names with a hash of what is in them need no sum. */
const isHashed = (name: string): boolean => name.startsWith('assets/');
/** Read by people and by the build alone. */
const isNoPage = (name: string): boolean =>
  name === WORKER || name.startsWith('.vite/') || name === 'THIRD-PARTY.txt';

export function pageFiles(): Plugin {
  let publicFolder = '';
  return {
    name: 'page-files',
    apply: 'build',
    config: () => ({
      build: {
        rolldownOptions: {
          input: { index: 'index.html', sw: 'src/workers/offline.ts' },
          output: {
            entryFileNames: ({ name }: { readonly name: string }) =>
              name === 'sw' ? WORKER : 'assets/[name]-[hash].js',
          },
        },
      },
    }),
    configResolved: ({ publicDir }) => {
      publicFolder = publicDir;
    },
    generateBundle: {
      order: 'post',
      handler(_options, bundle) {
        const worker = bundle[WORKER];
        if (worker?.type !== 'chunk' || !worker.code.includes(PLACE))
          throw new Error('the build has no service worker to put the files of the page into');
        if (worker.imports.length + worker.exports.length > 0)
          throw new Error('the service worker shares code with the page: not every browser can load it');
        const built = Object.values(bundle).flatMap((one): PageFile[] =>
          isNoPage(one.fileName)
            ? []
            : [
                {
                  url: `/${one.fileName}`,
                  revision: isHashed(one.fileName)
                    ? null
                    : sumOf(one.type === 'chunk' ? one.code : one.source),
                },
              ],
        );
        const given = filesUnder(publicFolder).map((name): PageFile => ({
          url: `/${name}`,
          revision: sumOf(readFileSync(join(publicFolder, name))),
        }));
        worker.code = worker.code.replace(PLACE, JSON.stringify([...built, ...given]));
      },
    },
  };
}
