import { render, screen } from '@testing-library/react';
import { Fallen } from './Fallen';

function Broken(): never {
  throw new Error('The script of this screen did not come.');
}

let quiet: jest.SpyInstance;
beforeEach(() => (quiet = jest.spyOn(console, 'error').mockImplementation(() => undefined)));
afterEach(() => quiet.mockRestore());

test('a screen that falls is said, with its reason and the next act', () => {
  render(
    <Fallen path="/wire">
      <Broken />
    </Fallen>,
  );
  expect(screen.getByRole('heading').textContent).toBe('This screen could not be shown.');
  expect(screen.getByText('The script of this screen did not come.')).toBeTruthy();
  expect(screen.getByRole('button', { name: 'Load the page anew' })).toBeTruthy();
});

test('another screen is tried anew', () => {
  const { rerender } = render(
    <Fallen path="/wire">
      <Broken />
    </Fallen>,
  );
  rerender(<Fallen path="/rig">Lamps</Fallen>);
  expect(screen.getByText('Lamps')).toBeTruthy();
});

test('one that stands is left alone', () => {
  render(<Fallen path="/rig">Lamps</Fallen>);
  expect(screen.queryByRole('button')).toBeNull();
  expect(screen.getByText('Lamps')).toBeTruthy();
});
