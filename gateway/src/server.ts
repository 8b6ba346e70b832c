import compression from 'compression';
import express, { type ErrorRequestHandler, type Express, type RequestHandler } from 'express';
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import {
  interpreterPolicy,
  nonceOf,
  ownHostOnly,
  permissions,
  securityHeaders,
  withNonce,
} from './security.ts';

const NONCE_PLACE = '__CSP_NONCE__';

/**
 * The small server of the garden: today it hands out the built app and says that it is alive; boards will report to it later.
 * @param appFolder the folder that holds the built `index.html`
 */
export function createServer(appFolder: string): Express {
  const server = express();
  server.disable('x-powered-by');
  // Never the stack of an error, whatever the environment says.
  server.set('env', 'production');
  server.use(withNonce, securityHeaders, permissions, ownHostOnly, compression());
  server.get('/api/health', (_request, response) => {
    response.json({ ok: true });
  });
  server.use('/api', (_request, response) => {
    response.status(404).json({ error: 'There is nothing at this address.' });
  });
  const page: RequestHandler = async (_request, response) => {
    const text = await readFile(join(appFolder, 'index.html'), 'utf8');
    response
      .set('Cache-Control', 'no-store')
      .type('html')
      .send(text.replace(NONCE_PLACE, nonceOf(response)));
  };
  // Before the files: as a file it would come without its nonce.
  server.get('/index.html', page);
  server.use(
    '/assets',
    interpreterPolicy,
    // Names carry a hash of the content, so they may be kept for good.
    express.static(join(appFolder, 'assets'), { immutable: true, maxAge: '365d', fallthrough: false }),
  );
  server.use(express.static(appFolder, { index: false, dotfiles: 'ignore' }));
  server.get('/{*path}', page);
  server.use(failed);
  return server;
}

/** What went wrong in one plain line: no stack, no path of this machine. */
const failed: ErrorRequestHandler = (error, _request, response, next) => {
  if (response.headersSent) {
    next(error);
    return;
  }
  const given = (error as { status?: unknown }).status;
  const status = typeof given === 'number' && given >= 400 && given < 600 ? given : 500;
  response
    .status(status)
    .type('text')
    .send(status < 500 ? 'There is nothing at this address.' : 'The server could not answer. Try again.');
};
