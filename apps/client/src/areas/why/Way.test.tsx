import { screen, within } from '@testing-library/react';
import { nightFerry } from '@taxiarch/core/whole/demo';
import type { NodePortReport, NodeReport } from '@taxiarch/core/network/node';
import { liveOf, open } from '@/testing/server';
import { Way } from './Way';

const ferry = nightFerry();
const port = (over: Partial<NodePortReport> = {}): NodePortReport =>
  ({
    number: 1,
    direction: 'out',
    sacn: true,
    portAddress: 6,
    disabled: false,
    ltp: false,
    active: true,
    merging: false,
    ...over,
  }) as NodePortReport;
const boiler = (over: Partial<NodePortReport>): NodeReport =>
  ({
    address: '127.0.0.32',
    mac: '02:7f:f1:00:00:32',
    shortName: 'Boiler node',
    longName: '',
    gone: false,
    alsoHere: [],
    alsoAt: [],
    ports: [port(over)],
    firstSeen: 0,
    lastSeen: 99_000,
  }) as unknown as NodeReport;
const rows = () =>
  within(screen.getByRole('list', { name: 'How far it is known' }))
    .getAllByRole('listitem')
    .map((row) => row.textContent);

test('each height is told with how it is known: the wire heard, the port said', async () => {
  await open(<Way universe={6} />, { records: ferry, live: liveOf(ferry, { nodes: [boiler({})] }) });
  expect(rows()).toEqual(['heardsteady on the wire', 'saidBoiler node, port 1: sends']);
});

test.each([
  [{ active: false }, 'nothing comes in there'],
  [{ portAddress: 9 }, 'is set to sACN 9'],
  [{ direction: 'in' as const }, 'is an input'],
  [{ merging: true }, 'sends, merging'],
])('a port that says %j breaks the way, whatever is heard', async (over, says) => {
  await open(<Way universe={6} />, { records: ferry, live: liveOf(ferry, { nodes: [boiler(over)] }) });
  expect(rows()[1]).toBe(`saidBoiler node, port 1: ${says}`);
  expect(screen.getByText(`Boiler node, port 1: ${says}`).closest('a')!.getAttribute('href')).toBe(
    '/why?kind=port&id=machine-boiler&part=1',
  );
});

test('of a node that does not answer nothing is known', async () => {
  await open(<Way universe={6} />, { records: ferry, live: liveOf(ferry) });
  expect(rows()[1]).toBe('not knownBoiler node, port 1: does not answer');
});
