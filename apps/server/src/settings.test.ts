import { readFileSync, readdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { formatCid } from '@taxiarch/core/protocol/sacn';
import { Notices } from './bridge/notices';
import { SettingsFile } from './settings';
import { newFolder, removeFolder } from './testing/serverProcess';

const path = (folder: string) => join(folder, 'settings.json');

function opened(folder: string) {
  const notices = new Notices();
  return { settings: new SettingsFile(folder, { interface: '127.0.0.1' }, notices), notices };
}

/** A folder in which the settings were changed twice. */
function used(): { folder: string; cid: string } {
  const folder = newFolder();
  const { settings, notices } = opened(folder);
  settings.change({ outputPriority: 120 });
  settings.change({ outputPriority: 130 });
  expect(notices.list()).toEqual([]);
  return { folder, cid: formatCid(settings.cid) };
}

test('what was changed stands at the next start, with the same identity', () => {
  const { folder, cid } = used();
  const { settings } = opened(folder);
  expect([settings.read().outputPriority, settings.read().interface]).toEqual([130, '127.0.0.1']);
  expect(formatCid(settings.cid)).toBe(cid);
  removeFolder(folder);
});

test.each([
  ['empty', () => ''],
  ['torn', (text: string) => text.slice(0, text.length / 2)],
  ['zeroed', (text: string) => '\0'.repeat(text.length)],
  ['no settings', () => '[1, 2]'],
  ['out of range', (text: string) => text.replace('130', '1300')],
  ['of another kind', (text: string) => text.replace('true', '"yes"')],
])('a file that is %s gives way to the last good one, is kept, and is told', (_, harm) => {
  const { folder, cid } = used();
  const harmed = harm(readFileSync(path(folder), 'utf8'));
  writeFileSync(path(folder), harmed);
  const { settings, notices } = opened(folder);
  expect(settings.read().outputPriority).toBe(120);
  expect(formatCid(settings.cid)).toBe(cid);
  expect(notices.list()).toMatchObject([
    { id: 'settings', sentence: expect.stringContaining('before their last') as string },
  ]);
  const aside = readdirSync(folder).find((name) => name.includes('damaged'))!;
  expect(readFileSync(join(folder, aside), 'utf8')).toBe(harmed);
  // What stands in is written whole again.
  expect(opened(folder).notices.list()).toEqual([]);
  removeFolder(folder);
});

test('with both lost it begins anew and says so', () => {
  const { folder } = used();
  for (const name of readdirSync(folder)) writeFileSync(join(folder, name), '');
  const { settings, notices } = opened(folder);
  expect(settings.read()).toMatchObject({ outputPriority: 150, interface: '127.0.0.1' });
  expect(notices.list()[0]!.sentence).toContain('none from before were found');
  removeFolder(folder);
});
