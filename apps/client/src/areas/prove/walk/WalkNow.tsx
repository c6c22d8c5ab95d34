/** Walking: the lamp in hand as large as a hand, what should be seen of it, and the word for it under the thumb. */
import { useState } from 'react';
import { Pressable, ScrollView, View } from 'react-native';
import { formatAddress } from '@taxiarch/core/base/address';
import { lampName, type PatchedLamp } from '@taxiarch/core/rig/patch';
import { looksOf } from '@taxiarch/core/rig/picture';
import type { MarkReason, Walk } from '@taxiarch/core/show/records';
import { channelName, shouldSee, slotsText } from '@taxiarch/core/proving/walk';
import { feed } from '@/data/feed';
import { useHot, useLive } from '@/data/live';
import { useShow } from '@/data/show';
import { makeHot } from '@/data/output';
import { Button, Notice, Text, WhyLink, count, useColour, PageShape } from '@/ui';
import { FailedSheet } from './FailedSheet';
import { HandsFree } from './HandsFree';
import { WalkMates } from './WalkMates';
import { WaitingMarks } from './WaitingMarks';
import { useHandsFree, type WalkActs } from './useHandsFree';
import { useWalking, type Walking } from './useWalking';

/** What it shows at this moment, in words. */
function Seen({
  patched,
  channel,
  walk,
  walking,
}: {
  patched: PatchedLamp;
  channel: number;
  walk: Walk;
  walking: Walking;
}) {
  const live = useLive();
  const hot = useHot();
  if (channel > 0) return <Text kind="lead">{shouldSee(patched, channel)}</Text>;
  const looks = looksOf(patched, walk.pictures);
  const running = live?.output.pictures.find(({ id, holder }) => id === 'walk' && holder === feed.holder);
  const now = hot && walking.lighting === 'on' && running ? looks[running.step % looks.length] : undefined;
  if (looks.length === 1) return <Text kind="lead">Should show: {looks[0]!.says.toLowerCase()}.</Text>;
  return (
    <Text kind="lead">
      {now ? `${now.says}. ` : ''}
      <Text kind="small">{looks.map(({ says }) => says).join(', ')}</Text>
    </Text>
  );
}

function Lighting({ walking }: { walking: Walking }) {
  const hot = useHot();
  const [trouble, setTrouble] = useState('');
  if (walking.away)
    return (
      <Notice state="look at">
        The server is away. Marks are kept on this phone and go out when it is back; nothing is lit from here.
      </Notice>
    );
  if (trouble !== '') return <Notice state="must fix">{trouble}</Notice>;
  if (!walking.lit) return null;
  if (!hot)
    return (
      <Notice
        state="look at"
        act={
          <View className="flex-row gap-2">
            <Button
              label="Make hot and light it"
              look="hot"
              grow
              onPress={() =>
                void makeHot(true).then(
                  () => walking.setLit(true),
                  (error: Error) => setTrouble(error.message),
                )
              }
            />
            <Button label="Walk without" onPress={() => walking.setLit(false)} />
          </View>
        }
      >
        Taxiarch is safe and lights nothing. Once hot, the lamp in hand lights and may move.
      </Notice>
    );
  if (walking.trouble === '') return null;
  return (
    <Notice state="look at" act={<Button label="Light it" onPress={() => walking.setLit(true)} />}>
      {walking.trouble}
    </Notice>
  );
}

/** The three words, each a thumb wide and more. */
function Mark({
  label,
  tone,
  onPress,
  disabled,
}: {
  label: string;
  tone: 'fine' | 'fault' | 'line';
  onPress: () => void;
  disabled: boolean;
}) {
  const colour = useColour();
  const filled = tone === 'fine';
  return (
    <Pressable
      role="button"
      aria-label={label}
      disabled={disabled}
      onPress={onPress}
      className={`h-20 flex-1 items-center justify-center rounded active:opacity-70 ${disabled ? 'opacity-40' : ''}`}
      style={{
        backgroundColor: filled ? colour('fine') : colour('surface'),
        borderWidth: filled ? 0 : 2,
        borderColor: colour(tone),
        flexGrow: filled ? 2 : 1,
      }}
    >
      <Text kind="title" tone={filled ? 'onpress' : tone === 'fault' ? 'fault' : 'soft'}>
        {label}
      </Text>
    </Pressable>
  );
}

export function WalkNow({ walk, first, onStop }: { walk: Walk; first: string; onStop: () => void }) {
  const { patch, records } = useShow();
  const walking = useWalking(walk, first);
  const [failing, setFailing] = useState(false);
  const [more, setMore] = useState(false);
  /** What failed last: why it does may be asked while one walks on. */
  const [lastFailed, setLastFailed] = useState<PatchedLamp>();
  const { item, states } = walking;
  const patched = item && patch.lamp(item.lampId);
  const acts: WalkActs = {
    proved: () => walking.mark({ result: 'proved' }),
    failed: () => setFailing(true),
    skipped: () => walking.mark({ result: 'skipped' }),
    back: () => walking.back(),
    next: () => walking.next(),
  };
  const channel = item && patched?.mode.channels[item.channel - 1];
  const spoken = patched
    ? `${patched.lamp.number}, ${patched.lamp.name}${channel ? `, ${channelName(channel)}` : ''}`
    : '';
  const handsFree = useHandsFree(acts, spoken, item?.key ?? '', failing);
  if (!walking.begun) return <PageShape />;
  const done = walking.items.length - walking.left;
  const failed = [...states.values()].filter((one) => one === 'failed' || one === 'disputed').length;
  const fail = (why: MarkReason, rest: { note: string; photo: Blob | null; did: number }) => {
    setFailing(false);
    setLastFailed(patched);
    walking.mark({ result: 'failed', why, note: rest.note, did: rest.did }, rest.photo);
  };
  const state = item && states.get(item.key);
  const place = records.place.find(({ id }) => id === patched?.lamp.placeId)?.name;

  return (
    <View className="flex-1 bg-ground">
      <ScrollView className="flex-1" contentContainerClassName="gap-3 px-4 pb-4 pt-3 w-full max-w-[880px]">
        <View className="flex-row items-center gap-2">
          <Text kind="small" className="flex-1">
            {done} of {count(walking.items.length, walk.unit)} marked{failed > 0 && `, ${failed} failed`}
          </Text>
          {state && <Text kind="small">Marked before: {state}</Text>}
        </View>
        <WaitingMarks />
        {patched && item ? (
          <>
            <View>
              <Text
                kind="monoTitle"
                aria-label="Number of the lamp in hand"
                role="note"
                style={{ fontSize: 56, lineHeight: 62 }}
              >
                {patched.lamp.number}
              </Text>
              <Text role="heading" aria-level={1} kind="title" style={{ fontSize: 32, lineHeight: 38 }}>
                {patched.lamp.name}
              </Text>
              {place !== undefined && (
                <Text kind="lead" tone="soft">
                  {place}
                </Text>
              )}
            </View>
            <View>
              <Text kind="monoTitle">{formatAddress(patched.lamp)}</Text>
              <Text kind="small">
                {patched.type.maker} {patched.type.name}, {patched.mode.name}
              </Text>
            </View>
            {channel && (
              <Text kind="title">
                {channelName(channel)}, {slotsText(channel)}
              </Text>
            )}
            <Seen patched={patched} channel={item.channel} walk={walk} walking={walking} />
            <Lighting walking={walking} />
            {state === 'failed' && <WhyLink href={`/why?kind=lamp&id=${patched.lamp.id}`} about={patched.lamp.name} />}
          </>
        ) : (
          <View className="gap-2 py-6">
            <Text kind="title">{walking.left === 0 ? 'Everything is marked.' : 'What is left is in other hands.'}</Text>
            <Text kind="soft">Look at how it stands, or go back to one.</Text>
          </View>
        )}
        {lastFailed && (
          <View className="flex-row items-center gap-2">
            <Text kind="small" className="flex-1">
              {lampName(lastFailed.lamp)} failed.
            </Text>
            <WhyLink href={`/why?kind=lamp&id=${lastFailed.lamp.id}`} about={lastFailed.lamp.name} />
          </View>
        )}
        {more && (
          <>
            <WalkMates walking={walking} />
            <HandsFree walking={walking} handsFree={handsFree} />
          </>
        )}
      </ScrollView>
      {failing && patched && item ? (
        <FailedSheet patched={patched} channel={item.channel} onFail={fail} onLeave={() => setFailing(false)} />
      ) : (
        <View className="gap-2 border-t border-line bg-surface px-4 py-2">
          <View className="w-full max-w-[880px] flex-row gap-2">
            <Button label="Back" disabled={!walking.canGoBack} onPress={acts.back} />
            <Button label={walking.lit ? 'Light off' : 'Light on'} onPress={() => walking.setLit(!walking.lit)} />
            <Button label={more ? 'Less' : 'More'} onPress={() => setMore(!more)} />
            <View className="flex-1" />
            <Button label="Stop walking" short="Stop" onPress={onStop} />
          </View>
          <View className="w-full max-w-[880px] flex-row gap-2">
            <Mark label="Failed" tone="fault" disabled={!item} onPress={acts.failed} />
            <Mark label="Skip" tone="line" disabled={!item} onPress={acts.skipped} />
            <Mark label="Proved" tone="fine" disabled={!item} onPress={acts.proved} />
          </View>
        </View>
      )}
    </View>
  );
}
