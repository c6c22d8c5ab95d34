/** A type of which only the name is known: a person says what it is, and its lamps are of that type from then on. */
import { useMemo, useState } from 'react';
import { mapType, modesByName, type ModeMap } from '@taxiarch/core/files/arrival';
import { footprintOf } from '@taxiarch/core/rig/fixture';
import type { FixtureType } from '@taxiarch/core/show/records';
import { refuse } from '@taxiarch/core/base/result';
import { useShow } from '@/data/show';
import { PlanPreview } from '@/forms/PlanPreview';
import { useLeaveFor, Pick, Screen, Sentence, Text, count } from '@/ui';
import { useTypes } from './choose';

const FIRST = refuse('nothing', 'Choose a type.');

export function UnknownType({ type: unknown }: { type: FixtureType }) {
  const leaveFor = useLeaveFor();
  const show = useShow();
  const types = useTypes();
  const [typeId, setTypeId] = useState('');
  const [modes, setModes] = useState<ModeMap>({});
  const type = types.find(({ id }) => id === typeId);
  const lamps = show.records.lamp.filter((lamp) => lamp.typeId === unknown.id);
  const asked = [...new Set(lamps.map(({ mode }) => mode))];
  const plan = useMemo(() => (type ? mapType(show, unknown, type, modes) : FIRST), [show, unknown, type, modes]);
  return (
    <Screen
      sentence={
        <Sentence>
          {count(lamps.length, 'lamp')} {lamps.length === 1 ? 'waits' : 'wait'} for the type “{unknown.name}”.
        </Sentence>
      }
    >
      <Text kind="soft">
        A file named it and did not hold it. Say which type it is; one that the library lacks can be made, or brought in
        as a GDTF file.
      </Text>
      <Pick
        label="It is"
        options={[
          { value: '', label: 'not known yet' },
          ...types.filter((one) => !one.unknown).map((one) => ({ value: one.id, label: `${one.maker} ${one.name}` })),
        ]}
        value={typeId}
        onChange={(id) => {
          const next = types.find((one) => one.id === id);
          setTypeId(id);
          setModes(next ? modesByName(unknown, next) : {});
        }}
      />
      {type &&
        asked.map((mode) => (
          <Pick
            key={mode}
            label={`Mode “${mode}” is`}
            options={[
              { value: '', label: 'not said' },
              ...type.modes.map((one) => ({
                value: one.name,
                label: `${one.name}, ${count(footprintOf(one), 'channel')}`,
              })),
            ]}
            value={modes[mode] ?? ''}
            onChange={(is) => setModes({ ...modes, [mode]: is })}
          />
        ))}
      <PlanPreview
        plan={plan}
        act={`Give ${count(lamps.length, 'lamp')} this type`}
        onDone={() => leaveFor('/rig/types')}
      />
    </Screen>
  );
}
