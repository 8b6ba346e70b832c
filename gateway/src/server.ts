import compression from 'compression';
import express, { Router, type ErrorRequestHandler, type Express, type RequestHandler } from 'express';
import type { RequestListener } from 'node:http';
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { boardRoutes } from './boards/boardRoutes.ts';
import { httpIntake } from './boards/httpIntake.ts';
import { feedRoutes } from './feed/feedRoutes.ts';
import { gardenRoutes } from './gardens/gardenRoutes.ts';
import type { Gateway } from './gateway.ts';
import { seenRoutes, tellingRoutes } from './telling/tellingRoutes.ts';
import { ownerOnly, ownerRoutes, sameOriginOnly } from './owner/ownerRoutes.ts';
import type { Reach } from './hosts.ts';
import {
  interpreterPolicy,
  nonceOf,
  ownHostOnly,
  permissions,
  securityHeaders,
  withNonce,
} from './security.ts';

const NONCE_PLACE = '__CSP_NONCE__';

/** Everything that is asked over HTTP: reports of boards, and what `createServer` answers. */
export function createListener(appFolder: string, gateway: Gateway, reach: Reach): RequestListener {
  const { intake, keys, noteHeard } = gateway;
  const isReport = httpIntake(intake, keys, reach.names, noteHeard);
  const pages = createServer(appFolder, gateway, reach);
  return (request, response) => {
    if (!isReport(request, response)) pages(request, response);
  };
}

/**
 * The small server of the garden: it hands out the built app, and apps get from it what boards have said.
 * @param appFolder the folder that holds the built `index.html`
 */
function createServer(appFolder: string, gateway: Gateway, reach: Reach): Express {
  const server = express();
  server.disable('x-powered-by');
  // Never the stack of an error, whatever the environment says.
  server.set('env', 'production');
  server.use(ownHostOnly(reach.names), withNonce, securityHeaders, permissions);
  server.use(
    compression({
      filter: (request, response) => isNoStream(request.path) && compression.filter(request, response),
    }),
  );
  server.get('/healthz', (_request, response) => {
    response.json({ ok: true });
  });
  server.get(
    '/metrics',
    ownerOnly(gateway.owner, reach.isOpen, gateway.nowMs),
    async (_request, response) => {
      response.type(gateway.metrics.contentType).send(await gateway.metrics.metrics());
    },
  );
  server.use('/api', api(gateway, reach));
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

/** What is sent as it happens must not wait for more to be packed. */
const isNoStream = (path: string): boolean => !path.endsWith('/feed');

/** What an app asks for. */
function api(gateway: Gateway, reach: Reach): Router {
  const { owner, nowMs } = gateway;
  const { isOpen } = reach;
  const router = Router();
  router.use(sameOriginOnly, ownerRoutes(owner, reach, nowMs), ownerOnly(owner, isOpen, nowMs));
  router.use(gardenRoutes(gateway, reach));
  router.use(boardRoutes(gateway));
  router.use(feedRoutes(gateway), tellingRoutes(gateway), seenRoutes(gateway));
  router.use((_request, response) => {
    response.status(404).json({ error: 'There is nothing at this address.' });
  });
  return router;
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
