/** The live strip: one line, always there. What is heard, what is sent, and the way to stop sending. */
import { View } from 'react-native';
import { formatRange } from '@taxiarch/core/base/address';
import type { LiveReport } from '@taxiarch/core/whole/contract';
import { call } from '@/data/api';
import { useConnected, useHot, useLastKnown, useLive, useLiveAge } from '@/data/live';
import { giveBackAll, makeHot } from '@/data/output';
import { Button } from '../Button';
import { StateWord } from '../StateWord';
import { Text } from '../Text';
import { clockTime, count } from '../time';

/** “24 slots: 3/1–24, since 14:02:11” */
function sending({ output: { holds, since }, routes, plugs = [] }: LiveReport): string {
  const running = routes.filter((one) => one.running);
  const out = plugs.filter(({ use }) => use === 'out');
  const through = [
    running.length > 0 ? `${count(running.length, 'route')} running` : '',
    out.length > 0 ? `${count(out.length, 'adapter')} sending` : '',
  ]
    .filter(Boolean)
    .join(', ');
  if (holds.length === 0 && running.length === 0 && through) return `${through}, since ${clockTime(since)}`;
  if (holds.length === 0 && through)
    return `${through}, ${running.reduce((sum, { rate }) => sum + rate, 0)} packets a second, since ${clockTime(since)}`;
  if (holds.length === 0) return `nothing taken, since ${clockTime(since)}`;
  const runs = holds.flatMap(({ universe, runs: list }) => list.map(([from, to]) => ({ universe, from, to })));
  const slots = runs.reduce((sum, { from, to }) => sum + to - from + 1, 0);
  const named = runs.slice(0, 2).map(formatRange).join(', ');
  const first = Math.min(...holds.map((hold) => hold.since));
  return `${through && `${through} · `}${count(slots, 'slot')} to ${named}${runs.length > 2 ? ' …' : ''} since ${clockTime(first)}`;
}

/** For so long what happened is news. */
const NEWS_MS = 30_000;

/** Nothing is known of this moment: why, and since when. */
function NotNow({ connected }: { connected: boolean }) {
  const last = useLastKnown();
  const age = useLiveAge();
  const why = connected
    ? last?.trouble || (last ? 'The engine sends no report.' : 'Starting to listen…')
    : 'The server does not answer. Trying again…';
  const since =
    last && age !== undefined ? ` Last known ${Math.round(age / 1000)} s ago${last.output.hot ? ', hot' : ''}.` : '';
  return (
    <>
      <StateWord state="look at" />
      <Text kind="small" tone="text" numberOfLines={2} className="flex-1">
        {why}
        {since}
      </Text>
    </>
  );
}

function Hot({ live }: { live: LiveReport }) {
  return (
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
  );
}

function Safe({ live }: { live: LiveReport }) {
  const streams = live.universes.flatMap((one) => one.streams).filter((stream) => !stream.lost).length;
  const [notice] = live.notices;
  const { newest, at } = live;
  const news = newest && at - newest.at < NEWS_MS ? `${newest.says} ` : '';
  return (
    <>
      <Text kind="strong">Safe</Text>
      <Text kind="small" numberOfLines={(notice || news) && !live.trouble ? 2 : 1} className="flex-1 tabular-nums">
        {live.trouble ||
          notice?.sentence ||
          `${news}${count(streams, 'stream')} heard, ${live.packetsPerSecond} packets a second`}
      </Text>
      {notice && !live.trouble && (
        <Button label="Read" onPress={() => void call('dismissNotice', { body: { id: notice.id } })} />
      )}
    </>
  );
}

export function LiveStrip() {
  const connected = useConnected();
  const live = useLive();
  const hot = useHot();
  return (
    <View
      role="status"
      aria-label="Live strip"
      className={`min-h-11 flex-row items-center gap-3 border-t px-3 ${hot ? 'border-hot bg-surface py-1' : 'border-line bg-surface'}`}
    >
      {!connected || !live ? <NotNow connected={connected} /> : hot ? <Hot live={live} /> : <Safe live={live} />}
    </View>
  );
}
