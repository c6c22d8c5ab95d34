/** Labels on a sheet of labels: for nodes and their cases, for cables, for lamps. */
import { useState } from 'react';
import { View } from 'react-native';
import {
  LABEL_KINDS,
  LABEL_SHEETS,
  paperOf,
  SHEETS,
  type LabelKind,
  type LabelSheet,
} from '@taxiarch/core/proving/proof';
import { wholeFrom } from '@/data/numbers';
import { saveFile } from '@/data/proof';
import { paperSize, placeFilter, usePreference } from '@/data/preferences';
import { machineSelection, rigSelection, useSelection } from '@/data/selection';
import { useShow } from '@/data/show';
import { Button, Check, Choice, Field, Pick, Text, count } from '@/ui';

const KIND_WORDS: Readonly<Record<LabelKind, string>> = { nodes: 'Machines', cables: 'Cables', lamps: 'Lamps' };

export function Labels() {
  const { records } = useShow();
  const place = usePreference(placeFilter);
  const machines = useSelection(machineSelection);
  const lamps = useSelection(rigSelection);
  const [what, setWhat] = useState<LabelKind>('nodes');
  const paper = usePreference(paperSize);
  const [picked, setSheet] = useState<LabelSheet>();
  const sheets = LABEL_SHEETS.filter((one) => paperOf(one) === paper);
  const sheet = picked && sheets.includes(picked) ? picked : sheets[0]!;
  const [skip, setSkip] = useState('0');
  const [cases, setCases] = useState(false);
  const [trouble, setTrouble] = useState('');
  const [busy, setBusy] = useState(false);
  const chosen = what === 'lamps' ? lamps : machines;
  // What is chosen; else what is in the place that lists are held to; else all.
  const all = what === 'lamps' ? records.lamp : records.machine;
  const ids =
    chosen.length > 0 ? chosen : all.filter(({ placeId }) => place === '' || placeId === place).map(({ id }) => id);
  const { columns, rows } = SHEETS[sheet];
  const used = wholeFrom(skip);
  const right = used !== undefined && used >= 0 && used < columns * rows;
  const make = async () => {
    setTrouble('');
    setBusy(true);
    try {
      await saveFile('exportLabels', { what, ids, sheet, skip: used ?? 0, base: window.location.origin, cases });
    } catch (error) {
      setTrouble((error as Error).message);
    }
    setBusy(false);
  };
  return (
    <View className="gap-2">
      <Choice
        label="Labels for what"
        options={LABEL_KINDS.map((value) => ({ value, label: KIND_WORDS[value] }))}
        value={what}
        onChange={setWhat}
      />
      <Text kind="small">
        For {count(ids.length, what === 'lamps' ? 'lamp' : 'machine')}
        {chosen.length > 0 ? ' that are chosen' : ''}. The picture on each opens its page at {window.location.origin}.
      </Text>
      <Pick
        label="Sheet"
        options={sheets.map((value) => ({
          value,
          label: `${value}: ${SHEETS[value].width} × ${SHEETS[value].height} mm`,
        }))}
        value={sheet}
        onChange={(value) => setSheet(value as LabelSheet)}
      />
      <Field
        label="Labels used already on the first sheet"
        mono
        value={skip}
        onChange={setSkip}
        fault={right ? undefined : `A number from 0 to ${columns * rows - 1}.`}
      />
      {what === 'nodes' && <Check label="A label for the case too" on={cases} onChange={setCases} />}
      {trouble !== '' && <Text tone="fault">{trouble}</Text>}
      <Button
        label={busy ? 'Being made…' : 'Labels as PDF'}
        disabled={busy || !right || ids.length === 0}
        onPress={() => void make()}
      />
    </View>
  );
}
