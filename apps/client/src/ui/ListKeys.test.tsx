/** What everybody expects of a list: Shift-click, Ctrl+A, arrows, Space, Escape. */
import { fireEvent, render, screen } from '@testing-library/react';
import { useState } from 'react';
import { ListKeys } from './ListKeys';

const IDS = ['a', 'b', 'c', 'd', 'e'];
const pressed = jest.fn();

function List() {
  const [chosen, setChosen] = useState<readonly string[]>([]);
  const [picking, setPicking] = useState(false);
  return (
    <ListKeys
      ids={() => IDS}
      chosen={chosen}
      onChoose={(ids) => setChosen([...new Set(ids)])}
      onBegin={() => setPicking(true)}
      onEnd={() => {
        setPicking(false);
        setChosen([]);
      }}
    >
      <input aria-label="Search" />
      {IDS.map((id) => (
        <div key={id} data-row={id}>
          <a href={`#${id}`} onClick={pressed}>
            {id}
          </a>
        </div>
      ))}
      <output>{`${picking ? 'choosing' : 'reading'}: ${chosen.join('')}`}</output>
    </ListKeys>
  );
}
const said = () => screen.getByRole('status').textContent;
const row = (id: string) => screen.getByRole('link', { name: id });

beforeEach(() => {
  pressed.mockClear();
  render(<List />);
});

test('a click opens its row; Shift-click chooses from there to here, and opens nothing', () => {
  fireEvent.click(row('b'));
  expect(pressed).toHaveBeenCalledTimes(1);
  fireEvent.click(row('d'), { shiftKey: true });
  expect([said(), pressed.mock.calls.length]).toEqual(['choosing: bcd', 1]);
  fireEvent.click(row('a'), { shiftKey: true });
  expect(said()).toBe('choosing: bcda');
});

test('arrows go from row to row and stop at the ends; Space chooses and leaves out', () => {
  row('a').focus();
  for (const key of ['ArrowDown', 'ArrowDown', 'ArrowUp']) fireEvent.keyDown(document.activeElement!, { key });
  expect(document.activeElement).toBe(row('b'));
  fireEvent.keyDown(row('b'), { key: ' ' });
  fireEvent.keyDown(row('e'), { key: 'ArrowDown' });
  fireEvent.keyDown(row('e'), { key: ' ' });
  expect(said()).toBe('choosing: be');
  fireEvent.keyDown(row('b'), { key: ' ' });
  expect(said()).toBe('choosing: e');
});

test('Ctrl+A chooses all, from a row or from nowhere, but not from a field; Escape ends it', () => {
  fireEvent.keyDown(row('c'), { key: 'a', ctrlKey: true });
  expect(said()).toBe('choosing: abcde');
  fireEvent.keyDown(row('c'), { key: 'Escape' });
  expect(said()).toBe('reading: ');
  fireEvent.keyDown(screen.getByLabelText('Search'), { key: 'a', ctrlKey: true });
  expect(said()).toBe('reading: ');
  fireEvent.keyDown(document.body, { key: 'a', metaKey: true });
  expect(said()).toBe('choosing: abcde');
});
