/** What stands beside the page on a wide screen: the list that the page belongs to, and the ways on of its area. */
import { usePathname } from 'expo-router';
import { Activity, useState, type ComponentType } from 'react';
import { View } from 'react-native';
import { useSelectThere } from '@/data/exchange';
import { useScrollMemory, useWide } from '@/ui';
import { FlowTools } from './flow/FlowTools';
import { LampList, LinksPage, MachineList, RoutesPage, SendersPage, UniverseList } from './lists';
import { ProveTools } from './prove/ProveTools';
import { RigTools } from './rig/RigTools';
import { WireTools } from './wire/WireTools';

const LISTS: readonly (readonly [path: RegExp, List: ComponentType])[] = [
  [/^\/rig\b/, LampList],
  [/^\/wire\b/, MachineList],
  [/^\/listen\b/, UniverseList],
  [/^\/flow\/senders\b/, SendersPage],
  [/^\/flow\/(routes|map)\b/, RoutesPage],
  [/^\/flow\/links\b/, LinksPage],
];

const TOOLS: readonly (readonly [path: RegExp, Tools: ComponentType, onPhone: boolean])[] = [
  [/^\/rig\b/, RigTools, false],
  [/^\/wire\b/, WireTools, false],
  [/^\/flow\/(senders|routes|map|links)\b/, FlowTools, false],
  // Its pages are steps of one job, and none of them is the area's list.
  [/^\/prove\b/, ProveTools, true],
];

/** Tells other programs which lamps are selected, while the rig is looked at. */
function SelectedElsewhere() {
  useSelectThere();
  return null;
}

/** A list that is scrolled as it was left, also after a reload. */
function KeptList({ name, List }: { name: string; List: ComponentType }) {
  const root = useScrollMemory(name, true);
  return (
    <div ref={root} style={{ flex: 1, minHeight: 0, display: 'flex', flexDirection: 'column' }}>
      <List />
    </div>
  );
}

/** Lists that were shown once stay as they were left. */
export function AreaList() {
  const wide = useWide();
  const here = usePathname();
  const now = LISTS.find(([path]) => path.test(here))?.[1];
  const [opened, setOpened] = useState<readonly ComponentType[]>([]);
  if (wide && now && !opened.includes(now)) setOpened([...opened, now]);
  const telling = /^\/rig\b/.test(here) && <SelectedElsewhere />;
  if (!wide) return telling;
  return (
    <View className={now ? 'w-[352px] border-r border-line' : 'hidden'}>
      {telling}
      {opened.map((List, i) => (
        <Activity key={i} mode={List === now ? 'visible' : 'hidden'}>
          <KeptList name={`list ${LISTS.findIndex(([, one]) => one === List)}`} List={List} />
        </Activity>
      ))}
    </View>
  );
}

export function AreaTools() {
  const wide = useWide();
  const here = usePathname();
  const [, Tools, onPhone] = TOOLS.find(([path]) => path.test(here)) ?? [];
  if (!Tools || !(wide || onPhone)) return null;
  return (
    <View className="border-b border-line px-4 py-2">
      <Tools />
    </View>
  );
}
