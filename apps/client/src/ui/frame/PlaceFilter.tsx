/** Holds the lists of lamps to one place of the show. */
import { createElement, type ChangeEvent } from 'react';
import { placeFilter, usePreference } from '@/data/preferences';
import { useShow } from '@/data/show';
import { useColour } from '../theme';

export function PlaceFilter() {
  const colour = useColour();
  const { records } = useShow();
  const chosen = usePreference(placeFilter);
  const places = [...records.place].sort((a, b) => a.order - b.order);
  if (places.length === 0) return null;
  return createElement(
    'select',
    {
      'aria-label': 'Place',
      value: places.some(({ id }) => id === chosen) ? chosen : '',
      onChange: (event: ChangeEvent<HTMLSelectElement>) => placeFilter.write(event.target.value),
      style: {
        height: 48,
        maxWidth: 132,
        minWidth: 0,
        padding: '0 8px',
        borderRadius: 6,
        border: `1px solid ${colour(chosen === '' ? 'line' : 'press')}`,
        background: colour('surface'),
        color: colour('press'),
        font: '600 16px "Fira Sans"',
        textOverflow: 'ellipsis',
      },
    },
    createElement('option', { key: '', value: '' }, 'All places'),
    ...places.map(({ id, name }) => createElement('option', { key: id, value: id }, name)),
  );
}
