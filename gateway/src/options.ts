import { fail, ok, type Result } from '@plain-trowel/core/quantity/result';

const DEFAULT_PORT = 4860;

/** Reads `--port N` (or `--port=N`, or PORT in the environment); the issue is a sentence for the person at the terminal. */
export function readOptions(
  args: readonly string[],
  environment: Readonly<Record<string, string | undefined>>,
): Result<{ port: number }, string> {
  const flag = args.findIndex((arg) => arg === '--port' || arg.startsWith('--port='));
  const given = flag < 0 ? environment.PORT : (args[flag]?.split('=')[1] ?? args[flag + 1]);
  const unknown = args.find((_, at) => at !== flag && !(at === flag + 1 && args[flag] === '--port'));
  if (unknown !== undefined && unknown !== '')
    return fail(`"${unknown}" is not an option here. There is one: --port N.`);
  if (given === undefined && flag < 0) return ok({ port: DEFAULT_PORT });
  const port = Number(given);
  if (given === undefined || given === '' || !Number.isInteger(port) || port < 1 || port > 65_535)
    return fail(
      `"${given ?? ''}" is not a port. Give a whole number from 1 to 65535, for example --port ${DEFAULT_PORT}.`,
    );
  return ok({ port });
}
