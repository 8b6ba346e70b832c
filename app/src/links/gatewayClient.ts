/** What the page asks of the gateway that it was loaded from. A page of plain files has none, and says so. */
import {
  leftSettingsSchema,
  orderSchema,
  standingSchema,
  type LeftSettings,
  type Standing,
} from '@plain-trowel/core/protocol/feed';
import {
  tellingSchema,
  waysShownSchema,
  type Telling,
  type Way,
  type WaysGiven,
  type WaysShown,
} from '@plain-trowel/core/protocol/telling';
import { parseJson } from '@plain-trowel/core/quantity/parseJson';
import { fail, ok, type Result } from '@plain-trowel/core/quantity/result';
import { z } from '@plain-trowel/core/quantity/schema';

export type GatewayIssue =
  /** Nothing answers there. */
  | { readonly kind: 'no-answer' }
  /** What answers is no gateway: the page lies on a server of plain files. */
  | { readonly kind: 'no-gateway' }
  | { readonly kind: 'passphrase' }
  /** It says why not. */
  | { readonly kind: 'refused'; readonly status: number; readonly text: string };

type Asked<T> = Promise<Result<T, GatewayIssue>>;

const errorSchema = z.object({ error: z.string() });
const sessionSchema = z.object({ isIn: z.boolean(), isOpen: z.boolean() });
const triedSchema = z.object({ sent: z.boolean(), why: z.string().nullable() });
const nothingSchema = z.object({});
const leftSchema = z.object({ settings: leftSettingsSchema.nullable() });
const ordersSchema = z.object({ orders: z.array(orderSchema.omit({ boardId: true })) });
export type GivenOrder = z.infer<typeof ordersSchema>['orders'][number];
const gardensSchema = z.object({
  gardens: z.array(
    z.object({ id: z.string(), name: z.string(), revision: z.number(), atMs: z.number(), by: z.string() }),
  ),
});
export type PublishedGarden = z.infer<typeof gardensSchema>['gardens'][number];

async function ask<T>(method: string, path: string, schema: z.ZodType<T>, body?: string): Asked<T> {
  let response: Response;
  let text: string;
  try {
    response = await fetch(`/api${path}`, {
      method,
      cache: 'no-store',
      ...(body === undefined ? {} : { body, headers: { 'content-type': 'application/json' } }),
    });
    text = await response.text();
  } catch {
    return fail({ kind: 'no-answer' });
  }
  const said = parseJson(text);
  if (response.ok) {
    const read = schema.safeParse(said);
    return read.success ? ok(read.data) : fail({ kind: 'no-gateway' });
  }
  const error = errorSchema.safeParse(said);
  if (!error.success) return fail({ kind: 'no-gateway' });
  if (response.status === 401 && !/^\/session(\/ticket\/used)?$/.test(path))
    return fail({ kind: 'passphrase' });
  return fail({ kind: 'refused', status: response.status, text: error.data.error });
}

const gardenPath = (gardenId: string): string => `/gardens/${encodeURIComponent(gardenId)}`;
const boardPath = (gardenId: string, boardId: string): string =>
  `${gardenPath(gardenId)}/boards/${encodeURIComponent(boardId)}`;

export const gateway = {
  session: (): Asked<z.infer<typeof sessionSchema>> => ask('GET', '/session', sessionSchema),
  enter: (passphrase: string): Asked<object> =>
    ask('POST', '/session', nothingSchema, JSON.stringify({ passphrase })),
  /** A ticket that lets one other browser in. */
  ticket: (): Asked<{ token: string; untilMs: number }> =>
    ask('POST', '/session/ticket', z.object({ token: z.string(), untilMs: z.number() }), '{}'),
  enterWith: (token: string): Asked<object> =>
    ask('POST', '/session/ticket/used', nothingSchema, JSON.stringify({ token })),
  standing: (gardenId: string): Asked<Standing> => ask('GET', gardenPath(gardenId), standingSchema),
  makeKey: (gardenId: string, boardId: string): Asked<{ key: string }> =>
    ask('POST', `${boardPath(gardenId, boardId)}/key`, z.object({ key: z.string() }), '{}'),
  revokeKey: (gardenId: string, boardId: string): Asked<object> =>
    ask('DELETE', `${boardPath(gardenId, boardId)}/key`, nothingSchema),
  makeReaderKey: (gardenId: string): Asked<{ key: string }> =>
    ask('POST', `${gardenPath(gardenId)}/reader`, z.object({ key: z.string() }), '{}'),
  revokeReaderKey: (gardenId: string): Asked<object> =>
    ask('DELETE', `${gardenPath(gardenId)}/reader`, nothingSchema),
  /** Settings that lie there for a board, and what has become of them. */
  leftSettings: (gardenId: string, boardId: string): Asked<z.infer<typeof leftSchema>> =>
    ask('GET', `${boardPath(gardenId, boardId)}/settings`, leftSchema),
  leaveSettings: (
    gardenId: string,
    boardId: string,
    settings: Pick<LeftSettings, 'frame' | 'lines'>,
  ): Asked<object> =>
    ask('PUT', `${boardPath(gardenId, boardId)}/settings`, leftSchema, JSON.stringify(settings)),
  withdrawSettings: (gardenId: string, boardId: string): Asked<object> =>
    ask('DELETE', `${boardPath(gardenId, boardId)}/settings`, nothingSchema),
  orders: (gardenId: string, boardId: string): Asked<{ orders: readonly GivenOrder[] }> =>
    ask('GET', `${boardPath(gardenId, boardId)}/orders`, ordersSchema),
  order: (gardenId: string, boardId: string, text: string, liveS: number): Asked<object> =>
    ask('POST', `${boardPath(gardenId, boardId)}/orders`, nothingSchema, JSON.stringify({ text, liveS })),
  /** @param untilMs told again then; null: seen for good */
  seen: (gardenId: string, key: string, untilMs: number | null): Asked<object> =>
    ask('POST', `${gardenPath(gardenId)}/alerts/seen`, nothingSchema, JSON.stringify({ key, untilMs })),
  telling: (): Asked<Telling> => ask('GET', '/telling', tellingSchema),
  setWays: (ways: WaysGiven): Asked<WaysShown> =>
    ask('PUT', '/telling', waysShownSchema, JSON.stringify(ways)),
  /** Sends a test, and waits for what comes of it. */
  tryWay: (way: Way): Asked<{ sent: boolean; why: string | null }> =>
    ask('POST', `/telling/test?way=${way}`, triedSchema, '{}'),
  sendAgain: (letterId: string): Asked<object> =>
    ask('POST', `/letters/${encodeURIComponent(letterId)}/again`, nothingSchema, '{}'),
  dropLetter: (letterId: string): Asked<object> =>
    ask('DELETE', `/letters/${encodeURIComponent(letterId)}`, nothingSchema),
  fetched: (
    gardenId: string,
    to: { readonly app: string; readonly name: string; readonly store: string; readonly n: number },
  ): Asked<object> => ask('POST', `${gardenPath(gardenId)}/fetched`, nothingSchema, JSON.stringify(to)),
  /** @param after the revision that it was made from; null: none that is known of */
  publish: (gardenId: string, text: string, by: string, after: number | null): Asked<{ revision: number }> =>
    ask(
      'PUT',
      `${gardenPath(gardenId)}/document?by=${encodeURIComponent(by)}${after === null ? '' : `&after=${after}`}`,
      z.object({ revision: z.number() }),
      text,
    ),
  /** Gardens that were published there. */
  gardens: (): Asked<z.infer<typeof gardensSchema>> => ask('GET', '/gardens', gardensSchema),
  /** A garden as it was published: the text of its file. */
  document: (gardenId: string): Asked<unknown> => ask('GET', `${gardenPath(gardenId)}/document`, z.unknown()),
  forgetApp: (gardenId: string, app: string): Asked<object> =>
    ask('DELETE', `${gardenPath(gardenId)}/apps/${encodeURIComponent(app)}`, nothingSchema),
  feedUrl: (gardenId: string, app: string): string =>
    `/api${gardenPath(gardenId)}/feed?app=${encodeURIComponent(app)}`,
};

export type Gateway = typeof gateway;
