/** The live strip: one line, always there. What is heard, what is sent, and the way to stop sending. */
import { View } from 'react-native';
import { formatRange } from '@taxiarch/core/address';
import type { LiveReport } from '@taxiarch/core/contract';
import { useConnected, useLive } from '@/data/live';
import { giveBackAll, makeHot } from '@/data/output';
import { Button } from '../Button';
import { StateWord } from '../StateWord';
import { Text } from '../Text';
import { clockTime, count } from '../time';

/** “24 slots: 3/1–24, since 14:02:11” */
function sending({ output: { holds, since }, routes }: LiveReport): string {
  const running = routes.filter((one) => one.running);
  const through = running.length > 0 ? `${count(running.length, 'route')} running` : '';
  if (holds.length === 0 && through)
    return `${through}, ${running.reduce((sum, { rate }) => sum + rate, 0)} packets a second, since ${clockTime(since)}`;
  if (holds.length === 0) return `nothing taken, since ${clockTime(since)}`;
  const runs = holds.flatMap(({ universe, runs: list }) => list.map(([from, to]) => ({ universe, from, to })));
  const slots = runs.reduce((sum, { from, to }) => sum + to - from + 1, 0);
  const named = runs.slice(0, 2).map(formatRange).join(', ');
  const first = Math.min(...holds.map((hold) => hold.since));
  return `${through && `${through} · `}${count(slots, 'slot')} to ${named}${runs.length > 2 ? ' …' : ''} since ${clockTime(first)}`;
}

export function LiveStrip() {
  const connected = useConnected();
  const live = useLive();
  const hot = live?.output.hot ?? false;
  const streams = live?.universes.flatMap((one) => one.streams).filter((stream) => !stream.lost).length ?? 0;
  return (
    <View
      role="status"
      aria-label="Live strip"
      className={`min-h-11 flex-row items-center gap-3 border-t px-3 ${hot ? 'border-hot bg-surface py-1' : 'border-line bg-surface'}`}
    >
      {!connected || !live ? (
        <>
          <StateWord state="look at" />
          <Text numberOfLines={1} className="flex-1">
            {connected ? 'Starting to listen…' : 'The server does not answer. Trying again…'}
          </Text>
        </>
      ) : hot ? (
        <>
          <StateWord state="hot" />
          <Text kind="small" numberOfLines={2} tone="text" className="flex-1">
            {sending(live)}
          </Text>
          {live.output.holds.length > 0 ? (
            <Button label="Give back all" look="hot" onPress={() => void giveBackAll()} />
          ) : (
            <Button label="Make safe" look="plain" onPress={() => void makeHot(false)} />
          )}
        </>
      ) : (
        <>
          <Text kind="strong">Safe</Text>
          <Text kind="small" numberOfLines={1} className="flex-1 tabular-nums">
            {live.trouble || `${count(streams, 'stream')} heard, ${live.packetsPerSecond} packets a second`}
          </Text>
        </>
      )}
    </View>
  );
}
