/** A certificate of one's own: with it browsers allow installing, offline work and notifications, and nobody on the way can listen. */
import { X509Certificate, createPrivateKey } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { fail, ok, type Result } from '@plain-trowel/core/quantity/result';

export type Tls = { readonly cert: string; readonly key: string };

/** Reads both files, PEM, and looks whether they belong together and hold. @returns a sentence for the person at the terminal where they do not */
export function readTls(
  files: { readonly cert: string; readonly key: string },
  nowMs: number,
): Result<Tls, string> {
  const cert = textOf(files.cert);
  const key = textOf(files.key);
  if (cert === null) return fail(`The certificate ${files.cert} cannot be read.`);
  if (key === null) return fail(`The key ${files.key} cannot be read.`);
  let certificate: X509Certificate;
  try {
    certificate = new X509Certificate(cert);
  } catch {
    return fail(
      `${files.cert} is no certificate: it must be PEM text that begins with "-----BEGIN CERTIFICATE-----".`,
    );
  }
  try {
    if (!certificate.checkPrivateKey(createPrivateKey(key)))
      return fail(`${files.key} is the key of another certificate than ${files.cert}.`);
  } catch {
    return fail(`${files.key} is no private key without a passphrase, PEM.`);
  }
  if (Date.parse(certificate.validTo) <= nowMs)
    return fail(`The certificate ${files.cert} ended on ${certificate.validTo}. Make a new one.`);
  return ok({ cert, key });
}

function textOf(file: string): string | null {
  try {
    return readFileSync(file, 'utf8');
  } catch {
    return null;
  }
}
