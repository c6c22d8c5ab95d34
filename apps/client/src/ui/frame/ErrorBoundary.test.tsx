import { render, screen } from '@testing-library/react';
import { ErrorBoundary } from './ErrorBoundary';

function Broken(): never {
  throw new Error('The script of this screen did not come.');
}

let quiet: jest.SpyInstance;
beforeEach(() => (quiet = jest.spyOn(console, 'error').mockImplementation(() => undefined)));
afterEach(() => quiet.mockRestore());

test('a screen that falls is said, with its reason and the next act', () => {
  render(
    <ErrorBoundary path="/wire">
      <Broken />
    </ErrorBoundary>,
  );
  expect(screen.getByRole('heading').textContent).toBe('This screen could not be shown.');
  expect(screen.getByText('The script of this screen did not come.')).toBeTruthy();
  expect(screen.getByRole('button', { name: 'Load the page anew' })).toBeTruthy();
});

test('another screen is tried anew', () => {
  const { rerender } = render(
    <ErrorBoundary path="/wire">
      <Broken />
    </ErrorBoundary>,
  );
  rerender(<ErrorBoundary path="/rig">Lamps</ErrorBoundary>);
  expect(screen.getByText('Lamps')).toBeTruthy();
});

test('one that stands is left alone', () => {
  render(<ErrorBoundary path="/rig">Lamps</ErrorBoundary>);
  expect(screen.queryByRole('button')).toBeNull();
  expect(screen.getByText('Lamps')).toBeTruthy();
});
