/** Gardens at the gateway: publishing one, taking it back, and how its boards and its mailbox stand. */
import express, { type Router } from 'express';
import type { BoardKey } from '../boards/keys.ts';
import type { Standing } from '@plain-trowel/core/protocol/feed';
import { MOST_DOCUMENT_BYTES } from './limits.ts';
import type { Gateway } from '../gateway.ts';
import { routerOfIds } from '../ids.ts';
import { networkAddresses, type Reach } from '../hosts.ts';
import type { PublishIssue } from './published.ts';

export function gardenRoutes(
  { gardens, mailbox, keys, rescues, nowMs }: Gateway,
  { isOpen, mqttPort }: Pick<Reach, 'isOpen' | 'mqttPort'>,
): Router {
  const router = routerOfIds();
  router.get('/gardens', (_request, response) => {
    response.json({
      gardens: gardens.all().map(({ garden, revision, atMs, by }) => ({
        id: garden.id,
        name: garden.name,
        revision,
        atMs,
        by,
      })),
    });
  });
  router.get('/gardens/:garden', (request, response) => {
    const id = request.params.garden;
    const published = gardens.get(id);
    const nowMillis = nowMs();
    response.json({
      published: published && {
        revision: published.revision,
        hash: published.hash,
        atMs: published.atMs,
        by: published.by,
      },
      boards: keys.of(id).map(({ boardId, madeMs, standIn }) => {
        const heard = mailbox.newestOf(id).get(boardId);
        return {
          boardId,
          madeMs,
          standIn,
          heard: heard ? { atMs: heard.receivedMs, program: heard.program ?? null } : null,
        };
      }),
      reader: readerShown(keys.readerOf(id)),
      mailbox: mailbox.holding(id, nowMillis),
      reach: { isOpen, addresses: isOpen ? [...networkAddresses()] : [], mqttPort },
      limitBytes: mailbox.limit,
      usedBytes: mailbox.bytes(),
      rescues: rescues.all().map(({ value }) => value),
      nowMs: nowMillis,
    } satisfies Standing);
  });
  router.get('/gardens/:garden/document', (request, response) => {
    const published = gardens.get(request.params.garden);
    if (published)
      response.set('X-Revision', String(published.revision)).type('application/json').send(published.text);
    else response.status(404).json({ error: 'This garden has not been published here.' });
  });
  router.put(
    '/gardens/:garden/document',
    express.text({ limit: MOST_DOCUMENT_BYTES, type: 'application/json' }),
    async (request, response) => {
      const text: unknown = request.body;
      const after = request.query.after === undefined ? null : Number(request.query.after);
      const by = typeof request.query.by === 'string' ? request.query.by.slice(0, 60) : '';
      if (typeof text !== 'string' || (after !== null && !Number.isInteger(after))) {
        response.status(400).json({ error: 'A garden is published as its file, application/json.' });
        return;
      }
      const done = await gardens.publish(request.params.garden, { text, by, after }, nowMs());
      if (done.ok) response.json({ revision: done.value.revision, hash: done.value.hash });
      else response.status(done.issue.kind === 'conflict' ? 409 : 400).json(refusal(done.issue));
    },
  );
  return router;
}

const readerShown = (key: BoardKey | null) => key && { madeMs: key.madeMs };

function refusal(issue: PublishIssue): object {
  switch (issue.kind) {
    case 'conflict': {
      const { revision, atMs, by } = issue.theirs;
      return {
        error:
          'This garden has been published by somebody else since. Look at both before one replaces the other.',
        theirs: { revision, atMs, by },
      };
    }
    case 'another-id':
      return { error: 'The file is another garden than the address says.' };
    case 'not-admitted':
      return { error: `The garden cannot be used by its boards: ${issue.message}.` };
    case 'file':
      return { error: 'The file is no garden that can be read here.', why: issue.issue.kind };
  }
}
