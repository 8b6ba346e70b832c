import { readGarden } from '@plain-trowel/core/garden/document/gardenFile';
import { RefusedError } from '../data/gardenStore.ts';
import { freshName } from '../data/eventIds.ts';
import { storeNewGarden } from '../data/newGarden.ts';
import { database } from '../data/services.ts';
import { problemOf } from '../data/storageProblem.ts';
import { gateway } from '../links/gatewayClient.ts';
import { refusedText } from '../words/gardenFaultText.ts';
import { gatewayIssueText } from '../words/networkText.ts';
import { storageText } from '../words/storageText.ts';

/** Keeps a published garden in this browser, where it listens to its boards from then on. @returns what went wrong; null: nothing */
export async function takeHere(gardenId: string): Promise<string | null> {
  const asked = await gateway.document(gardenId);
  if (!asked.ok) return gatewayIssueText(asked.issue);
  const read = readGarden(asked.value);
  if (!read.ok || read.value.id !== gardenId)
    return 'What lies at the gateway is no garden that this page can read. Load the page again; it may be of an older version.';
  try {
    await storeNewGarden(await database(), read.value, {
      readings: new Map(),
      events: [],
      link: {
        world: null,
        openAtStart: false,
        alerts: {},
        gateway: { app: freshName().slice(0, 24), openAtStart: true },
      },
    });
    return null;
  } catch (error) {
    return error instanceof RefusedError
      ? refusedText(error.faults)
      : `The garden was not kept. ${storageText(problemOf(error))}`;
  }
}
