/** Kept settings: starting points for common jobs and people's own snapshots, given to one or many machines. */
import { useRouter } from 'expo-router';
import { useMemo, useRef, useState } from 'react';
import { View } from 'react-native';
import {
  applySettings,
  keepSnapshot,
  portDifferences,
  readSnapshot,
  STARTING_POINTS,
  writeSnapshot,
} from '@taxiarch/core/network/machine';
import { changed, removed } from '@taxiarch/core/show/edit';
import type { Machine, MachinePort, Snapshot } from '@taxiarch/core/show/records';
import { machineSelection, useSelection } from '@/data/selection';
import { newId, wholeFrom } from '@/data/numbers';
import { propose, useShow } from '@/data/show';
import { PlanPreview } from '@/forms/PlanPreview';
import { Button, Check, Field, Notice, Pick, Screen, Section, Sentence, Text, count, dayAndTime } from '@/ui';
import { PushButton, PushOutcome, usePush } from './machine/PushPanel';

/** Saves text as a file of the person's computer. */
function save(name: string, text: string): void {
  const url = URL.createObjectURL(new Blob([text], { type: 'application/json' }));
  const link = document.createElement('a');
  link.href = url;
  link.download = name;
  link.click();
  URL.revokeObjectURL(url);
}

/** A choice among starting points and snapshots: `point 0`, or the snapshot's id. */
function settingsOf(which: string, snapshots: readonly Snapshot[], first: number) {
  const point = /^point (\d+)$/.exec(which);
  if (point) {
    const { name, ports } = STARTING_POINTS[Number(point[1])]!;
    return {
      name,
      of: (machine: Machine, count: number): readonly MachinePort[] => ports(count || machine.ports.length, first),
    };
  }
  const snapshot = snapshots.find(({ id }) => id === which);
  return snapshot && { name: snapshot.name, of: (): readonly MachinePort[] => snapshot.ports };
}

function Apply() {
  const { records } = useShow();
  const chosen = useSelection(machineSelection);
  const push = usePush();
  const [which, setWhich] = useState('point 0');
  const [first, setFirst] = useState('1');
  const models = useMemo(() => new Map(records.model.map((one) => [one.id, one])), [records.model]);
  const withPorts = records.machine
    .filter(({ ports, modelId }) => ports.length > 0 || (models.get(modelId ?? '')?.ports ?? 0) > 0)
    .sort((a, b) => a.name.localeCompare(b.name, 'en', { numeric: true }));
  const machines = withPorts.filter(({ id }) => chosen.includes(id));
  const applied = useMemo(() => {
    const settings = settingsOf(which, records.snapshot, wholeFrom(first) ?? 1);
    const portsOf = ({ modelId }: Machine) => models.get(modelId ?? '')?.ports ?? 0;
    const machines = records.machine.filter(({ id }) => chosen.includes(id));
    return settings && applySettings(settings.name, (one) => settings.of(one, portsOf(one)), machines, models);
  }, [which, first, records, chosen, models]);
  // One that has these settings already is not given them again.
  const given = applied?.plan.ok ? applied.plan.value.changes.length : 0;
  return (
    <>
      <Section title="Give settings to machines">
        <Pick
          label="Settings"
          options={[
            ...STARTING_POINTS.map(({ name }, i) => ({ value: `point ${i}`, label: `Starting point: ${name}` })),
            ...records.snapshot.map(({ id, name }) => ({ value: id, label: `Snapshot: ${name}` })),
          ]}
          value={which}
          onChange={setWhich}
        />
        <Text kind="small">{/^point (\d+)/.test(which) ? STARTING_POINTS[Number(which.slice(6))]!.about : ''}</Text>
        {which.startsWith('point') && <Field label="First universe" mono value={first} onChange={setFirst} />}
        <View role="group" aria-label="To machines">
          {withPorts.map(({ id, name }) => (
            <Check key={id} label={name} on={chosen.includes(id)} onChange={() => machineSelection.toggle(id)} />
          ))}
        </View>
        {applied?.left.map(({ machine, why }) => (
          <Notice key={machine.id} state="refused">
            {machine.name} is left as it is. {why}
          </Notice>
        ))}
        {machines.length > 0 && applied && (
          <PlanPreview plan={applied.plan} act={`Give to ${count(given, 'machine')}`} />
        )}
      </Section>
      {machines.length > 0 && (
        <Section title="Push the plan of these machines">
          <Text kind="small">
            Each is set as planned, read back, and told of by itself. Pushing again does no harm.
          </Text>
          <View className="flex-row">
            <PushButton
              push={push}
              machineIds={machines.map(({ id }) => id)}
              label={`Push to ${count(machines.length, 'node')}`}
            />
          </View>
          <PushOutcome push={push} />
        </Section>
      )}
    </>
  );
}

function SnapshotCard({ snapshot }: { snapshot: Snapshot }) {
  const router = useRouter();
  const { records } = useShow();
  const push = usePush();
  const [comparing, setComparing] = useState(false);
  const [removing, setRemoving] = useState(false);
  const [renaming, setRenaming] = useState<string>();
  const [other, setOther] = useState('');
  const machine = records.machine.find(({ id }) => id === snapshot.machineId);
  const against =
    records.snapshot.find(({ id }) => id === other)?.ports ??
    records.machine.find(({ id }) => id === other)?.ports ??
    machine?.ports;
  const lines = comparing && against ? portDifferences('', snapshot.ports, against) : [];
  return (
    <View className="gap-2 rounded border border-line bg-surface p-3" role="listitem" aria-label={snapshot.name}>
      <Text kind="strong">{snapshot.name}</Text>
      <Text kind="small">
        {count(snapshot.ports.length, 'port')}, {dayAndTime(snapshot.at)}
        {snapshot.about && ` · ${snapshot.about}`}
      </Text>
      <View className="flex-row flex-wrap gap-2">
        <Button label="Rename" onPress={() => setRenaming(renaming === undefined ? snapshot.name : undefined)} />
        <Button label="Compare" onPress={() => setComparing(!comparing)} />
        <Button label="File" onPress={() => save(`${snapshot.name}.node.json`, writeSnapshot(snapshot))} />
        {machine && <Button label="Put back" onPress={() => void push.push([machine.id], snapshot.id)} />}
        <Button label="Remove" onPress={() => setRemoving(!removing)} />
        {machine && <Button label="Machine" onPress={() => router.navigate(`/wire/${machine.id}`)} />}
      </View>
      <PushOutcome push={push} />
      {renaming !== undefined && (
        <View className="flex-row items-end gap-2">
          <View className="flex-1">
            <Field label="New name" value={renaming} onChange={setRenaming} />
          </View>
          <Button
            label="Save"
            look="main"
            disabled={renaming.trim() === ''}
            onPress={() => {
              const name = renaming.trim();
              setRenaming(undefined);
              void propose(`Renamed the snapshot ${snapshot.name} to ${name}`, [
                changed('snapshot', snapshot, { ...snapshot, name }),
              ]);
            }}
          />
        </View>
      )}
      {comparing && (
        <View className="gap-1">
          <Pick
            label="With"
            options={[
              { value: '', label: machine ? `${machine.name} as planned` : 'choose' },
              ...records.machine
                .filter(({ ports }) => ports.length > 0)
                .map(({ id, name }) => ({ value: id, label: `${name} as planned` })),
              ...records.snapshot
                .filter(({ id }) => id !== snapshot.id)
                .map(({ id, name }) => ({ value: id, label: name })),
            ]}
            value={other}
            onChange={setOther}
          />
          {lines.map(({ subject, before, after }) => (
            <View key={subject} className="min-h-8 flex-row items-center gap-2 border-b border-line">
              <Text kind="small" tone="text" className="flex-1">
                {subject.replace(/^, /, '')}
              </Text>
              <Text kind="monoSmall">{before}</Text>
              <Text kind="small">→</Text>
              <Text kind="monoSmall">{after || 'goes'}</Text>
            </View>
          ))}
          {lines.length === 0 && <Text kind="soft">They are the same.</Text>}
        </View>
      )}
      {removing && (
        <PlanPreview
          plan={{
            ok: true,
            value: {
              sentence: `Removed the snapshot ${snapshot.name}`,
              changes: [removed('snapshot', snapshot)],
              lines: [{ subject: snapshot.name, before: 'kept', after: '' }],
            },
          }}
          act="Remove it"
        />
      )}
    </View>
  );
}

export function KeptPage() {
  const { records } = useShow();
  const input = useRef<HTMLInputElement>(null);
  const [trouble, setTrouble] = useState('');
  const bring = async (file: File | undefined) => {
    if (!file) return;
    setTrouble('');
    const snapshot = readSnapshot(await file.text(), newId());
    if (!snapshot.ok) return setTrouble(snapshot.why);
    const { sentence, changes } = keepSnapshot(snapshot.value);
    await propose(sentence, changes).catch((error: Error) => setTrouble(error.message));
  };
  const snapshots = [...records.snapshot].sort((a, b) => b.at.localeCompare(a.at));
  return (
    <Screen
      sentence={
        <Sentence>{`${count(STARTING_POINTS.length, 'starting point')} and ${count(snapshots.length, 'snapshot')}.`}</Sentence>
      }
      acts={<Button label="Import a file" grow onPress={() => input.current?.click()} />}
    >
      <input
        ref={input}
        type="file"
        accept=".json"
        aria-label="File of kept settings"
        hidden
        onChange={(event) => void bring(event.target.files?.[0])}
      />
      {trouble !== '' && <Notice state="must fix">{trouble}</Notice>}
      <Apply />
      <Section title="Snapshots">
        {snapshots.length === 0 && (
          <Text kind="soft">
            Settings that you keep at a machine will stand here, and those that are kept by themselves before each push.
          </Text>
        )}
        {snapshots.map((snapshot) => (
          <SnapshotCard key={snapshot.id} snapshot={snapshot} />
        ))}
      </Section>
    </Screen>
  );
}
