import { mkdtempSync } from 'node:fs';
import { createServer, type Server } from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { openGateway } from '../gateway/src/gateway.ts';
import { ownNames } from '../gateway/src/hosts.ts';
import { createListener } from '../gateway/src/server.ts';

/** Serves the built app as the gateway does, on a port of its own. */
export function appServer(dist: string): Server {
  const gateway = openGateway(mkdtempSync(join(tmpdir(), 'trowel-bench-')), 1e9);
  const reach = { names: ownNames('127.0.0.1', null), isOpen: false, mqttPort: 0, isSecure: false };
  return createServer(createListener(dist, gateway, reach)).listen(0, '127.0.0.1');
}
