import express, { type Express } from 'express';
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { nonceOf, securityHeaders, withNonce } from './security.ts';

const NONCE_PLACE = '__CSP_NONCE__';

/**
 * The small server of the garden: today it hands out the built app and says that it is alive; boards will report to it later.
 * @param appFolder the folder that holds the built `index.html`
 */
export function createServer(appFolder: string): Express {
  const server = express();
  server.disable('x-powered-by');
  server.use(withNonce, securityHeaders);
  server.get('/api/health', (_request, response) => {
    response.json({ ok: true });
  });
  server.use('/api', (_request, response) => {
    response.status(404).json({ error: 'There is nothing at this address.' });
  });
  server.use(
    '/assets',
    // Names carry a hash of the content, so they may be kept for good.
    express.static(join(appFolder, 'assets'), { immutable: true, maxAge: '365d', fallthrough: false }),
  );
  server.use(express.static(appFolder, { index: false }));
  server.get('/{*path}', async (_request, response) => {
    const page = await readFile(join(appFolder, 'index.html'), 'utf8');
    response
      .set('Cache-Control', 'no-store')
      .type('html')
      .send(page.replace(NONCE_PLACE, nonceOf(response)));
  });
  return server;
}
