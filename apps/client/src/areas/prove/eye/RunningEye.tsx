/** One lamp after the other: the plan to tap on, the likely one under the thumb. */
import { useMemo, useState } from 'react';
import { View } from 'react-native';
import { keyOfItem, lit, type EyeReply, type EyeSession } from '@taxiarch/core/proving/eye';
import { TapPlan } from '@/areas/rig/plan/TapPlan';
import { answerEye, backEye, endEye } from '@/data/eye';
import { wholeFrom } from '@/data/numbers';
import { makeHot } from '@/data/output';
import { useShow } from '@/data/show';
import { Button, Field, Notice, Sentence, Text, count } from '@/ui';

interface Props {
  readonly eye: EyeReply;
  readonly session: EyeSession;
  readonly onEnded: (reply: EyeReply, how: EyeSession['how']) => void;
}

interface Doubt {
  readonly lampIds: readonly string[];
  readonly says: string;
}

export function RunningEye({ eye, session, onEnded }: Props) {
  const { patch, records } = useShow();
  const [number, setNumber] = useState('');
  const [picked, setPicked] = useState<readonly string[]>([]);
  const [doubt, setDoubt] = useState<Doubt>();
  const [trouble, setTrouble] = useState('');
  const [busy, setBusy] = useState(false);
  const item = lit(session);
  const several = session.how === 'stretches';
  const lampIds = useMemo(() => new Set(session.lampIds), [session.lampIds]);
  const found = useMemo(
    () => new Set(eye.lamps.filter(({ state }) => state !== 'waiting' && state !== 'not found').map(({ id }) => id)),
    [eye.lamps],
  );
  const done = found.size;
  const unset = eye.lamps.filter(({ state }) => state === 'not set');
  const marked = useMemo(
    () => new Set([...picked, ...(picked.length === 0 && eye.likely !== '' ? [eye.likely] : [])]),
    [picked, eye.likely],
  );
  const likely = patch.lamp(eye.likely)?.lamp;
  const hotAgain = () => void makeHot(true).catch((error: Error) => setTrouble(error.message));

  const attempt = async (work: () => Promise<unknown>) => {
    setTrouble('');
    setDoubt(undefined);
    setBusy(true);
    try {
      await work();
      setPicked([]);
      setNumber('');
    } catch (error) {
      setTrouble((error as Error).message);
    }
    setBusy(false);
  };
  const say = (answer: 'tapped' | 'skipped' | 'not seen', ids: readonly string[] = [], sure = false) =>
    attempt(async () => {
      if (!item) return;
      try {
        await answerEye({ lit: keyOfItem(item), answer, lampIds: ids, sure });
      } catch (error) {
        // What can be right after all is asked back.
        const says = (error as Error).message;
        if (!says.endsWith('Is it really this one?')) throw error;
        setDoubt({ lampIds: ids, says });
      }
    });
  const tap = (id: string) => {
    if (!several) return void say('tapped', [id]);
    setPicked(picked.includes(id) ? picked.filter((one) => one !== id) : [...picked, id]);
  };
  const byNumber = () => {
    const found = records.lamp.find((one) => one.number === wholeFrom(number));
    if (found) tap(found.id);
    else setTrouble(`No lamp has the number ${number}.`);
  };
  const end = () =>
    attempt(async () => {
      onEnded(await endEye(), session.how);
    });

  return (
    <View className="flex-1 bg-ground">
      <View className="gap-1 px-4 pb-2 pt-3">
        <Sentence>
          {item
            ? several
              ? `Which lamps light? ${eye.left} to go.`
              : `Which lamp lights? ${eye.left} to go.`
            : `All were lit: ${done} of ${count(eye.lamps.length, 'lamp')} found.`}
        </Sentence>
        <Text kind="small">
          {item ? `${eye.now}; ${done} of ${count(eye.lamps.length, 'lamp')} found.` : 'End it to see what is where.'}
        </Text>
        {eye.lighting === 'safe' && (
          <Notice state="look at" act={<Button label="Make hot and go on" look="hot" onPress={hotAgain} />}>
            Taxiarch was made safe: nothing is lit. Where it stood is kept.
          </Notice>
        )}
        {unset.length > 0 && (
          <Text tone="fault">
            {count(unset.length, 'lamp')} matched and not set: {unset[0]!.says}
          </Text>
        )}
        {eye.trouble !== '' && <Text tone="warn">{eye.trouble}</Text>}
        {trouble !== '' && <Text tone="fault">{trouble}</Text>}
      </View>
      <TapPlan
        lampIds={lampIds}
        chosen={marked}
        done={found}
        label={`Plan with ${count(lampIds.size, 'lamp')}`}
        onTap={tap}
      />
      <View className="gap-2 border-t border-line bg-surface px-4 py-2">
        {doubt && (
          <Notice
            state="look at"
            act={
              <View className="flex-row gap-2">
                <Button label="Yes, this one" grow onPress={() => void say('tapped', doubt.lampIds, true)} />
                <Button label="No" onPress={() => setDoubt(undefined)} />
              </View>
            }
          >
            {doubt.says}
          </Notice>
        )}
        <View className="flex-row items-center gap-2">
          <Button label="Back" disabled={session.steps.length === 0 || busy} onPress={() => void attempt(backEye)} />
          <Button label="Skip" disabled={!item || busy} onPress={() => void say('skipped')} />
          <Button label="Not seen" disabled={!item || busy} onPress={() => void say('not seen')} />
          <View className="flex-1">
            <Field
              label="Number"
              hideLabel
              mono
              placeholder="Number"
              value={number}
              onChange={setNumber}
              onSubmitEditing={byNumber}
            />
          </View>
        </View>
        <View className="flex-row gap-2">
          <Button label="End" onPress={() => void end()} />
          {several && picked.length > 0 ? (
            <Button
              label={picked.length === 1 ? 'This one lights' : `These ${picked.length} light`}
              look="main"
              grow
              disabled={!item || busy}
              onPress={() => void say('tapped', picked)}
            />
          ) : (
            <Button
              label={likely && item ? `It is ${likely.number} ${likely.name}` : 'Tap it on the plan'}
              look="main"
              grow
              disabled={!item || !likely || busy}
              onPress={() => likely && void say('tapped', [likely.id])}
            />
          )}
        </View>
      </View>
    </View>
  );
}
