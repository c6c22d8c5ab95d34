/** A route's way: what comes in, how it is merged, where it goes and how. */
import { removed } from '@taxiarch/core/show/edit';
import { useMemo } from 'react';
import { View } from 'react-native';
import { DELIVERIES, type Delivery, type Route } from '@taxiarch/core/show/records';
import type { RouteMerge } from '@taxiarch/core/signal/route';
import { RecordFoot } from '@/forms/RecordFoot';
import { rulesOf } from '@/forms/rules';
import { useRecordForm } from '@/forms/useRecordForm';
import { useInterfaces } from '@/data/live';
import { useShow } from '@/data/show';
import { Delete } from '@/forms/Delete';
import { useLeaveFor, Button, Check, Field, Pick, Screen, Section, Sentence, Text } from '@/ui';
import { PLAIN_INPUT_FORM, formOf, planOf, type InputForm, type RouteForm } from './routeForm';

const MERGES = [
  { value: 'htp', label: 'highest level (HTP)' },
  { value: 'ltp', label: 'latest change (LTP)' },
  { value: 'priority', label: 'by priority' },
  { value: 'backup', label: 'backup: one at a time' },
];
const RETURNS = [
  { value: 'at once', label: 'at once' },
  { value: 'by hand', label: 'by hand' },
];

const RULES = rulesOf('route', ['name']);

export function RouteEditor({ route }: { route: Route | undefined }) {
  const leaveFor = useLeaveFor();
  const { records } = useShow();
  const interfaces = useInterfaces().data?.interfaces ?? [];
  const editing = useRecordForm<RouteForm, Route>('route', route, formOf, RULES);
  const { id, base, form, set, text } = editing;
  const plan = useMemo(() => planOf(form, base, id, records), [form, base, id, records]);
  const setInput = (which: number, next: Partial<InputForm>) =>
    set({ inputs: form.inputs.map((one, i) => (i === which ? { ...one, ...next } : one)) });
  return (
    <Screen
      sentence={
        <Sentence>{route ? `The way of ${route.name}.` : 'A new route. It runs when you switch it on.'}</Sentence>
      }
    >
      <Field label="Name" {...text('name')} />
      <Section title="What comes in">
        {form.inputs.map((input, i) => (
          <View key={i} className="gap-2 border-b border-line pb-3" role="group" aria-label={`Input ${i + 1}`}>
            <View className="flex-row items-end gap-2">
              <View className="flex-1">
                <Field
                  label="Universe"
                  mono
                  placeholder="3, sACN 12, Art-Net 0.1.2"
                  value={input.universe}
                  onChange={(universe) => setInput(i, { universe })}
                />
              </View>
              {form.inputs.length > 1 && (
                <Button
                  label={`Remove input ${i + 1}`}
                  short="Remove"
                  onPress={() => set({ inputs: form.inputs.filter((_, at) => at !== i) })}
                />
              )}
            </View>
            <View className="flex-row gap-2">
              <View className="flex-[2]">
                <Field
                  label="Of one sender"
                  placeholder="any"
                  value={input.sender}
                  onChange={(sender) => setInput(i, { sender })}
                />
              </View>
              <View className="flex-1">
                <Field label="Moved by" mono value={input.shift} onChange={(shift) => setInput(i, { shift })} />
              </View>
              {form.merge === 'priority' && (
                <View className="flex-1">
                  <Field
                    label="Priority"
                    mono
                    value={input.priority}
                    onChange={(priority) => setInput(i, { priority })}
                  />
                </View>
              )}
            </View>
          </View>
        ))}
        <Button label="Add an input" onPress={() => set({ inputs: [...form.inputs, PLAIN_INPUT_FORM] })} />
        {form.inputs.length > 1 && (
          <Pick
            label="Merged"
            options={MERGES}
            value={form.merge}
            onChange={(merge) => set({ merge: merge as RouteMerge })}
          />
        )}
        {form.inputs.length > 1 && form.merge === 'backup' && (
          <Pick
            label="The first gets it back"
            options={RETURNS}
            value={form.returns}
            onChange={(returns) => set({ returns: returns as Route['returns'] })}
          />
        )}
      </Section>
      <Section title="Where it goes">
        <Field label="To universe" mono placeholder="sACN 101, Art-Net 0.2.0" {...text('out')} />
        <View className="flex-row gap-2">
          <View className="flex-1">
            <Pick
              label="Delivery"
              options={DELIVERIES.map((value) => ({ value, label: value }))}
              value={form.delivery}
              onChange={(delivery) => set({ delivery: delivery as Delivery })}
            />
          </View>
          <View className="flex-1">
            <Pick
              label="By interface"
              options={[
                { value: '', label: 'the one in use' },
                ...interfaces.map(({ name, address }) => ({ value: address, label: `${name} ${address}` })),
              ]}
              value={form.interface}
              onChange={(address) => set({ interface: address })}
            />
          </View>
        </View>
        {form.delivery === 'unicast' && <Field label="To the addresses" mono {...text('addresses')} />}
        <View className="flex-row gap-2">
          <View className="flex-1">
            <Field label="sACN priority" mono {...text('priority')} />
          </View>
          <View className="flex-1">
            <Field label="Master, 0 to 255" mono {...text('master')} />
          </View>
        </View>
        {/^a/i.test(form.out.trim()) ? (
          <Check
            label="Let out together by ArtSync"
            on={form.sync !== ''}
            onChange={(on) => set({ sync: on ? '1' : '' })}
          />
        ) : (
          <Field label="Let out together by sACN universe" mono placeholder="none" {...text('sync')} />
        )}
        {form.sync !== '' && (
          <Text kind="small">
            Receivers that know synchronisation hold each frame until the packet that lets it out; others show it at
            once.
          </Text>
        )}
        <Check
          label="Comes back when Taxiarch starts again, if it ran when it ended"
          on={form.comesBack}
          onChange={(comesBack) => set({ comesBack })}
        />
        {form.comesBack && <Text kind="small">Taxiarch then begins hot, without anybody pressing anything.</Text>}
      </Section>
      <RecordFoot
        of={editing}
        plan={plan}
        act={route ? 'Change the route' : 'Plan the route'}
        onDone={() => leaveFor(`/flow/routes/${id}`)}
      />
      {route && (
        <Delete
          change={removed('route', route)}
          what={`the route ${route.name}`}
          onDone={() => {
            editing.clear();
            leaveFor('/flow/routes');
          }}
        />
      )}
    </Screen>
  );
}
