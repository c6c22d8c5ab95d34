import { existsSync, mkdtempSync, rmSync, unlinkSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { eventually } from '../testing/serverProcess';
import { FolderInUse, lockFolder } from './lock';

let folder = '';
beforeEach(() => (folder = mkdtempSync(join(tmpdir(), 'taxiarch-lock-'))));
afterEach(() => rmSync(folder, { recursive: true, force: true }));

const inContainer = (name: string) => ({ id: name, realm: name });
const nothing = () => undefined;

test('a second one on this computer is refused, and let in when the first has gone', async () => {
  const lock = await lockFolder(folder);
  await expect(lockFolder(folder)).rejects.toThrow(/is open in another Taxiarch\. Stop that one first/);
  await lock.release();
  expect(existsSync(join(folder, 'lock'))).toBe(false);
  await (await lockFolder(folder)).release();
});

test('one in another container that shares the folder is refused, and let in when the first has gone', async () => {
  const lock = await lockFolder(folder, nothing, inContainer('a'));
  await expect(lockFolder(folder, nothing, inContainer('b'))).rejects.toThrow(FolderInUse);
  await lock.release();
  await (await lockFolder(folder, nothing, inContainer('b'))).release();
});

test('one that was killed leaves a file that nobody touches: it keeps nobody out', async () => {
  writeFileSync(join(folder, 'lock'), JSON.stringify(inContainer('killed')));
  await (await lockFolder(folder, nothing, inContainer('b'))).release();
  // On the same computer the socket says at once that nobody is there.
  writeFileSync(join(folder, 'lock'), '{"id":');
  await (await lockFolder(folder)).release();
});

test('one that slept while another took the folder is told', async () => {
  let lost = false;
  const lock = await lockFolder(folder, () => (lost = true), inContainer('a'));
  unlinkSync(join(folder, 'lock'));
  writeFileSync(join(folder, 'lock'), JSON.stringify(inContainer('b')));
  await eventually(() => lost, Boolean);
  await lock.release();
  expect(existsSync(join(folder, 'lock'))).toBe(true);
});
