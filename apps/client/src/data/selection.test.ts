import { Selection } from './selection';

test('keeps the order of choosing, each once; a second tap takes it out', () => {
  const chosen = new Selection('test order');
  for (const id of ['c', 'a', 'b', 'a']) chosen.toggle(id);
  expect(chosen.read()).toEqual(['c', 'b']);
  chosen.set(['x', 'y', 'x']);
  expect(chosen.read()).toEqual(['x', 'y']);
});

test('stands after a reload, apart from what is chosen elsewhere', () => {
  new Selection('test walk').set(['1', '2']);
  new Selection('test rig').set(['3']);
  expect(new Selection('test walk').read()).toEqual(['1', '2']);
  expect(new Selection('test machines').read()).toEqual([]);
});
