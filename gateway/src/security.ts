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
});
