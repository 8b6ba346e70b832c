import helmet from 'helmet';
import { randomBytes } from 'node:crypto';
import type { RequestHandler, Response } from 'express';

/** A fresh nonce for each page: the few style sheets that scripts must write (a dialog's scroll lock) carry it. */
export const nonceOf = (response: Response): string => String(response.locals.nonce);

export const withNonce: RequestHandler = (_request, response, next) => {
  response.locals.nonce = randomBytes(16).toString('base64');
  next();
};

/** No inline script, no request that leaves this machine, no framing. */
export const securityHeaders = helmet({
  contentSecurityPolicy: {
    useDefaults: false,
    directives: {
      defaultSrc: ["'self'"],
      scriptSrc: ["'self'"],
      scriptSrcAttr: ["'none'"],
      styleSrc: ["'self'", (_request, response) => `'nonce-${nonceOf(response as Response)}'`],
      imgSrc: ["'self'", 'data:'],
      fontSrc: ["'self'"],
      connectSrc: ["'self'"],
      workerSrc: ["'self'"],
      manifestSrc: ["'self'"],
      objectSrc: ["'none'"],
      baseUri: ["'none'"],
      formAction: ["'self'"],
      frameAncestors: ["'none'"],
    },
  },
  // The page is served over plain HTTP on this machine only; a browser told otherwise would refuse it next time.
  strictTransportSecurity: false,
  // One rule for framing: frame-ancestors above. The older header would say it a second time, and differently.
  xFrameOptions: false,
});

/** The worker in which a board's program runs may compile WebAssembly, and fetch its own; nothing else may. */
export const interpreterPolicy: RequestHandler = (request, response, next) => {
  if (/^\/board\.worker-[\w-]+\.js$/.test(request.path))
    response.set(
      'Content-Security-Policy',
      "default-src 'none'; script-src 'self' 'wasm-unsafe-eval'; connect-src 'self'",
    );
  next();
};

/** What the page may ask the browser for: a serial port, and nothing else that reaches outside of it. */
const MAY_NOT = [
  'accelerometer',
  'bluetooth',
  'camera',
  'display-capture',
  'geolocation',
  'gyroscope',
  'hid',
  'magnetometer',
  'microphone',
  'midi',
  'payment',
  'usb',
];

export const permissions: RequestHandler = (_request, response, next) => {
  response.set('Permissions-Policy', ['serial=(self)', ...MAY_NOT.map((one) => `${one}=()`)].join(', '));
  next();
};

/**
 * Answers only to the gateway's own names. A page elsewhere could give its own name this machine's address and would otherwise be let in as if it
 * came from here.
 */
export const ownHostOnly =
  (names: ReadonlySet<string>): RequestHandler =>
  (request, response, next) => {
    const name = (request.headers.host ?? '').toLowerCase().replace(/:\d+$/, '');
    if (names.has(name)) next();
    else
      response
        .status(403)
        .type('text')
        .send(
          'Plain Trowel does not answer to this name. On its own machine open it as http://localhost; start it with --name to give it another name.',
        );
  };
