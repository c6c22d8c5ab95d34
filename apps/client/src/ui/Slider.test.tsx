import { fireEvent, render, screen } from '@testing-library/react';
import { Slider } from './Slider';

const set: number[] = [];
beforeEach(() => (set.length = 0));
const slider = (value: number) => <Slider label="Level" value={value} max={255} onChange={(next) => set.push(next)} />;
const number = () => screen.getByLabelText<HTMLInputElement>('Level, as a number from 0 to 255');
const type = (text: string) => fireEvent.change(number(), { target: { value: text } });

test('the number follows the level, until somebody is in it', () => {
  const { rerender } = render(slider(178));
  rerender(slider(134));
  expect(number().value).toBe('134');
  fireEvent.focus(number());
  // A cue moves the level between the tap and the first digit.
  rerender(slider(99));
  expect(number().value).toBe('134');
  type('20');
  rerender(slider(50));
  expect(number().value).toBe('20');
  expect(set).toEqual([20]);
  fireEvent.blur(number());
  expect(number().value).toBe('50');
});

test('what is no level is not set, and gone when the number is left', () => {
  render(slider(7));
  fireEvent.focus(number());
  for (const text of ['', '-1', '1.5', '256', 'x']) type(text);
  expect(set).toEqual([]);
  fireEvent.blur(number());
  expect(number().value).toBe('7');
});

test('it is set by its slider too', () => {
  render(slider(7));
  fireEvent.change(screen.getByRole('slider', { name: 'Level' }), { target: { value: '80' } });
  expect(set).toEqual([80]);
});

test('the number that stands there already is set when it is typed again', () => {
  const { rerender } = render(slider(99));
  fireEvent.focus(number());
  rerender(slider(97));
  fireEvent.input(number(), { target: { value: '99' } });
  expect(set).toEqual([99]);
});
