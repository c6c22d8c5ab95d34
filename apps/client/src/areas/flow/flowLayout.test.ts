import type { FlowEdge, FlowNode } from '@taxiarch/core/network/flow';
import { NODE, layOut, wayKey } from './flowLayout';

const node = (id: string, kind: FlowNode['kind']): FlowNode => ({
  id,
  kind,
  label: id,
  below: '',
  universes: [],
  href: '/wire/x',
});
const edge = (from: string, to: string, label = ''): FlowEdge => ({ from, to, live: true, label });

const graph = {
  nodes: [
    node('desk', 'sender'),
    ...['u1', 'u2', 'u3'].map((id) => node(id, 'universe')),
    node('a', 'machine'),
    node('b', 'machine'),
  ],
  edges: [
    ...['u1', 'u2', 'u3'].map((id) => edge('desk', id)),
    edge('u1', 'a', '1'),
    edge('u1', 'b', '1'),
    edge('u2', 'a', '2'),
    edge('u2', 'b', '2'),
    edge('u3', 'b', '3'),
  ],
};

test('senders stand at one end, ports at the other, universes between', () => {
  const { at, width, height } = layOut(graph, true);
  const x = (id: string) => at.get(id)!.x;
  expect(x('desk')).toBeLessThan(x('u1'));
  expect(x('u1')).toBe(x('u3'));
  expect(x('u1')).toBeLessThan(x('a'));
  for (const one of at.values()) {
    expect(one.x).toBeLessThanOrEqual(width - NODE.width / 2);
    expect(one.y).toBeLessThanOrEqual(height - NODE.height / 2);
  }
});

test('on a phone the way runs from top to bottom', () => {
  const { at } = layOut(graph, false);
  const y = (id: string) => at.get(id)!.y;
  expect(y('desk')).toBeLessThan(y('u1'));
  expect(y('u1')).toBeLessThan(y('a'));
});

test('nodes do not cover one another', () => {
  for (const across of [true, false]) {
    const all = [...layOut(graph, across).at.values()];
    for (const [i, one] of all.entries())
      for (const other of all.slice(i + 1))
        expect(Math.abs(one.x - other.x) >= NODE.width || Math.abs(one.y - other.y) >= NODE.height).toBe(true);
  }
});

test('each way has a path, each labelled one a label, and no label covers another', () => {
  const { ways, labels } = layOut(graph, true);
  expect([...ways.keys()]).toEqual(graph.edges.map(wayKey));
  const all = [...labels.values()];
  expect(all).toHaveLength(5);
  for (const [i, one] of all.entries())
    for (const other of all.slice(i + 1))
      expect(Math.abs(one.x - other.x) >= 64 || Math.abs(one.y - other.y) >= 16).toBe(true);
});
