import { fireEvent, screen } from '@testing-library/react';
import { useState } from 'react';
import { nightFerry } from '@taxiarch/core/whole/demo';
import { recordPlan } from '@taxiarch/core/show/edit';
import type { Place, Universe } from '@taxiarch/core/show/records';
import { useShow } from '@/data/show';
import { answers, asked, edited, open, proposed, refusal, settled } from '@/testing/server';
import { Button, Field } from '@/ui';
import { RecordFoot } from './RecordFoot';
import { rulesOf } from './rules';
import { useRecordForm } from './useRecordForm';

const records = nightFerry();
const [universe] = records.universe as [Universe];

const RULES = rulesOf('universe', ['name']);
const PLACE_RULES = rulesOf('place', ['name', 'order']);

function Placing({ draft = 'placing', order = '1' }: { draft?: string; order?: string }) {
  const editing = useRecordForm<{ name: string; order: string }, Place>(
    draft,
    undefined,
    () => ({ name: '', order }),
    PLACE_RULES,
  );
  return (
    <>
      <Field label="Name" {...editing.text('name')} />
      <Field label="Order" {...editing.text('order')} />
    </>
  );
}

function Naming() {
  const { records: now } = useShow();
  const record = now.universe.find(({ id }) => id === universe.id);
  const editing = useRecordForm('test', record, (one) => ({ name: one?.name ?? '' }), RULES);
  const base = editing.base;
  const plan = recordPlan('universe', base, { ...(base ?? universe), name: editing.form.name });
  return (
    <>
      <Field label="Name" {...editing.text('name')} />
      <RecordFoot of={editing} plan={plan} act="Rename" />
    </>
  );
}

const typed = () => screen.getByRole<HTMLInputElement>('textbox', { name: 'Name' }).value;
const type = (value: string) => fireEvent.change(screen.getByRole('textbox', { name: 'Name' }), { target: { value } });
const press = async (name: string) => {
  fireEvent.click(screen.getByRole('button', { name }));
  await settled();
};

test('nothing is asked before something is typed; what is typed is kept when the screen is left, and can be dropped', async () => {
  const first = await open(<Naming />, { records });
  expect(screen.queryByRole('button', { name: 'Rename' })).toBeNull();
  type('Bow wash');
  first.unmount();
  await open(<Naming />, { records });
  expect(typed()).toBe('Bow wash');
  await press('Leave as it was');
  expect(typed()).toBe(universe.name);
});

test('what is written follows on the record that was there when typing began', async () => {
  await open(<Naming />, { records });
  type('Bow wash');
  await press('Rename');
  expect(proposed()).toMatchObject([{ id: universe.id, rev: universe.rev, after: { name: 'Bow wash' } }]);
});

test('a refusal is said and loses nothing', async () => {
  await open(<Naming />, { records });
  type('Bow wash');
  answers.set('/api/edits', refusal(422, 'That name is taken.'));
  await press('Rename');
  expect(screen.getByText('That name is taken.')).toBeTruthy();
  expect(typed()).toBe('Bow wash');
});

test('when somebody else has changed the record since, it is said, and nothing is written over their work', async () => {
  await open(<Naming />, { records });
  type('Bow wash');
  edited('universe', universe, { ...universe, name: 'Theirs', rev: 1 });
  expect(screen.getByText(/Somebody else has changed this/)).toBeTruthy();
  expect(screen.queryByRole('button', { name: 'Rename' })).toBeNull();
  expect(asked.filter(({ path }) => path === '/api/edits')).toEqual([]);
  await press('Show it as it is now');
  expect(typed()).toBe('Theirs');
});

test('a wrong field shows its fault while it is typed, and no longer once it is right', async () => {
  await open(<Naming />, { records });
  expect(screen.queryByRole('alert')).toBeNull();
  type('x'.repeat(200));
  await settled();
  expect(screen.getByRole('alert').textContent).toBe('The universe’s name may have at most 120 characters.');
  type('Bow wash');
  await settled();
  expect(screen.queryByRole('alert')).toBeNull();
});

test('a new form shows faults only at fields that were typed in, also when it comes back as a draft', async () => {
  const first = await open(<Placing />, { records });
  const typeIn = (name: string, value: string) =>
    fireEvent.change(screen.getByRole('textbox', { name }), { target: { value } });
  typeIn('Order', 'first');
  await settled();
  expect(screen.getAllByRole('alert').map(({ textContent }) => textContent)).toEqual([
    'The order must be a whole number.',
  ]);
  typeIn('Name', 'Bow');
  typeIn('Name', '');
  await settled();
  expect(screen.getAllByRole('alert')).toHaveLength(1);
  first.unmount();
  await open(<Placing />, { records });
  await settled();
  expect(screen.getByRole('alert').textContent).toBe('The order must be a whole number.');
});

test('a new form follows a show that loads later, until something is typed', async () => {
  const at = () => screen.getByRole<HTMLInputElement>('textbox', { name: 'Order' }).value;
  function Later() {
    const [order, setOrder] = useState('1');
    return (
      <>
        <Placing draft="later" order={order} />
        <Button label="Loaded" onPress={() => setOrder('40')} />
      </>
    );
  }
  await open(<Later />, { records });
  expect(at()).toBe('1');
  await press('Loaded');
  expect(at()).toBe('40');
  fireEvent.change(screen.getByRole('textbox', { name: 'Name' }), { target: { value: 'Bow' } });
  await settled();
  expect(at()).toBe('40');
});
