import { readFileSync } from 'node:fs';
import { expect, test } from 'vitest';
import { newFolder, newMailbox, NOON, report } from '../mailbox/mailboxForTests.ts';
import { exportAll } from './exportAll.ts';

test('every report and every reading stands in the files, in the order in which they came', async () => {
  const mailbox = newMailbox();
  for (let seq = 0; seq < 3; seq += 1) await mailbox.put('hare', report(seq), NOON + seq * 60_000);
  const two = [
    { n: 'l1', v: -1.5, agoS: 0 },
    { n: 'b1.moisture', v: 31.4, agoS: 1 },
  ];
  await mailbox.put('boat', report(9, { board: 'stern', readings: two }), NOON);
  const { files, entries, readings } = await exportAll(mailbox.store, newFolder());
  expect([entries, readings]).toEqual([4, 5]);
  const [ndjson = '', csv = ''] = files.map((file) => readFileSync(file, 'utf8'));
  expect(
    ndjson
      .trim()
      .split('\n')
      .map((line) => (JSON.parse(line) as { garden: string }).garden),
  ).toEqual(['boat', 'hare', 'hare', 'hare']);
  expect(csv.split('\r\n')).toEqual([
    'garden,number,board,boot,run,report,name,value,time',
    'boat,1,stern,12,0,9,l1,-1.5,2026-11-28T12:00:00.000Z',
    'boat,1,stern,12,0,9,b1.moisture,31.4,2026-11-28T11:59:59.000Z',
    'hare,1,roof,12,0,0,c2,1500,2026-11-28T11:59:57.000Z',
    'hare,2,roof,12,0,1,c2,1501,2026-11-28T12:00:57.000Z',
    'hare,3,roof,12,0,2,c2,1502,2026-11-28T12:01:57.000Z',
    '',
  ]);
  await mailbox.close();
});
