/** The history of the show: undo, redo, and each edit with what it changed and the way back to it. */
import { useState } from 'react';
import { Pressable, View } from 'react-native';
import type { HistoryReply } from '@taxiarch/core/whole/contract';
import { goBack, takeBack, useEdit, useHistory } from '@/data/show';
import { Button, Notice, Opened, Section, Text, count, dayAndTime } from '@/ui';

/** Edits shown at first, and more at each press */
const PAGE = 30;

export function History({ onTrouble }: { onTrouble: (why: string) => void }) {
  const [newest, setNewest] = useState(PAGE);
  const [open, setOpen] = useState<number>();
  const history = useHistory(newest);
  const attempt = (act: Promise<unknown>) => void act.catch((error: Error) => onTrouble(error.message));
  return (
    <Section title="History">
      <View className="flex-row gap-2">
        <Button label="Undo" grow disabled={history?.undo == null} onPress={() => attempt(takeBack('undo'))} />
        <Button label="Redo" grow disabled={history?.redo == null} onPress={() => attempt(takeBack('redo'))} />
      </View>
      {history?.edits.map((edit) => (
        <View key={edit.seq} className="border-b border-line">
          <EditRow
            edit={edit}
            open={open === edit.seq}
            onPress={() => setOpen(open === edit.seq ? undefined : edit.seq)}
          />
          {open === edit.seq && (
            <Opened>
              <EditDetails
                seq={edit.seq}
                onBack={() => {
                  setOpen(undefined);
                  attempt(goBack(edit.seq));
                }}
              />
            </Opened>
          )}
        </View>
      ))}
      {history !== undefined && history.earlier > 0 && (
        <Button label={`Show ${Math.min(PAGE, history.earlier)} earlier`} onPress={() => setNewest(newest + PAGE)} />
      )}
    </Section>
  );
}

interface RowProps {
  edit: HistoryReply['edits'][number];
  open: boolean;
  onPress: () => void;
}

function EditRow({ edit: { sentence, author, at }, open, onPress }: RowProps) {
  return (
    <Pressable
      role="button"
      aria-expanded={open}
      onPress={onPress}
      className="min-h-12 justify-center py-1 active:bg-raised"
    >
      <Text>{sentence}</Text>
      <Text kind="small">
        {author}, {dayAndTime(at)}
      </Text>
    </Pressable>
  );
}

/** Lines of one edit shown on the page */
const LINES = 40;

function EditDetails({ seq, onBack }: { seq: number; onBack: () => void }) {
  const { data, error } = useEdit(seq);
  const [sure, setSure] = useState(false);
  if (!data) return error ? <Notice state="look at">{error.message}</Notice> : <Text kind="soft">Loading…</Text>;
  const { lines, more, later } = data;
  const left = more + Math.max(0, lines.length - LINES);
  return (
    <View className="gap-2 pb-3 pl-3" role="region" aria-label={`Edit ${seq}`}>
      {lines.slice(0, LINES).map(({ subject, before, after }, i) => (
        <View key={i} className="flex-row flex-wrap gap-x-2">
          <Text kind="small">{subject}</Text>
          <Text kind="monoSmall">{before === '' ? after : `${before} → ${after}`}</Text>
        </View>
      ))}
      {left > 0 && <Text kind="small">and {count(left, 'line')} more</Text>}
      {later > 0 && !sure && (
        <View className="flex-row">
          <Button label="Go back to here" onPress={() => setSure(true)} />
        </View>
      )}
      {sure && (
        <>
          <Notice state="look at">
            {`This undoes the ${later === 1 ? 'edit' : `${later} edits`} after this one, by everyone. You can undo it.`}
          </Notice>
          <View className="flex-row gap-2">
            <Button label="Cancel" grow onPress={() => setSure(false)} />
            <Button label={`Undo ${count(later, 'edit')}`} look="main" grow onPress={onBack} />
          </View>
        </>
      )}
    </View>
  );
}
