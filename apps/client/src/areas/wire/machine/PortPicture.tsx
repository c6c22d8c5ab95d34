/** The box's connectors as they stand on it, each with what it carries: planned, and what is there now. */
import { Pressable, View } from 'react-native';
import { formatPortAddress, protocolName } from '@taxiarch/core/base/address';
import type { NodePortReport } from '@taxiarch/core/network/node';
import { carriedBy, wireNumber } from '@taxiarch/core/network/machine';
import type { MachinePort, Universe } from '@taxiarch/core/show/records';
import { Text, useColour } from '@/ui';

interface Props {
  ports: readonly MachinePort[];
  seen: readonly NodePortReport[] | undefined;
  universes: ReadonlyMap<number, Universe>;
  /** Numbers of ports whose settings differ from the plan */
  off: ReadonlySet<number>;
  chosen?: ReadonlySet<number> | undefined;
  onPress?: ((port: number) => void) | undefined;
}

/** A socket seen from the front: filled while signal passes, with an arrow for its direction. */
function Socket({ use, active }: { use: MachinePort['use']; active: boolean }) {
  const colour = useColour();
  const ink = colour(use === 'off' ? 'line' : active ? 'fine' : 'soft');
  return (
    <svg width={44} height={44} viewBox="0 0 44 44" aria-hidden>
      <circle cx={22} cy={22} r={19} fill={active ? colour('raised') : 'none'} stroke={ink} strokeWidth={3} />
      {use === 'off' ? (
        <path d="M14 14L30 30" stroke={ink} strokeWidth={3} />
      ) : use === 'fixed' ? (
        <path d="M13 22h18" stroke={ink} strokeWidth={4} />
      ) : (
        <path
          d={use === 'out' ? 'M22 11v20m-7-7l7 8 7-8' : 'M22 33V13m-7 7l7-8 7 8'}
          fill="none"
          stroke={ink}
          strokeWidth={3}
        />
      )}
    </svg>
  );
}

function lines(
  port: MachinePort,
  all: readonly MachinePort[],
  universes: Props['universes'],
  seen: NodePortReport | undefined,
) {
  if (port.use === 'off') return ['off', '', '', ''];
  if (port.use === 'fixed') return ['fixed', `at ${port.fixed}`, '', ''];
  const carried = carriedBy(port, all);
  const number = wireNumber(carried, universes);
  const wire = carried.protocol === 'sacn' ? String(number) : formatPortAddress(number);
  const now = !seen
    ? ''
    : !seen.active
      ? 'no signal'
      : seen.merging
        ? `merges ${seen.ltp ? 'LTP' : 'HTP'}`
        : port.use === 'in'
          ? 'receives'
          : 'sends';
  return [
    port.copyOf === null ? `universe ${carried.universe}` : `as port ${port.copyOf}`,
    protocolName(carried.protocol),
    wire,
    now,
  ];
}

export function PortPicture({ ports, seen, universes, off, chosen, onPress }: Props) {
  const numbered = new Map(seen?.map((port) => [port.number, port]));
  return (
    <View role={onPress ? 'group' : 'list'} aria-label="Ports" className="flex-row flex-wrap gap-2">
      {ports.map((port) => {
        const there = numbered.get(port.number);
        const [what, protocol, wire, now] = lines(port, ports, universes, there);
        const differs = off.has(port.number);
        const on = chosen?.has(port.number) ?? false;
        return (
          <Pressable
            key={port.number}
            role={onPress ? 'checkbox' : 'listitem'}
            aria-checked={onPress ? on : undefined}
            aria-label={`Port ${port.number}, ${port.use}, ${what}${differs ? ', differs from the plan' : ''}`}
            disabled={!onPress}
            onPress={() => onPress?.(port.number)}
            className={`w-[112px] items-center gap-1 rounded border p-2 ${on ? 'border-press bg-raised' : differs ? 'border-warn' : 'border-line'}`}
          >
            <View className="w-full flex-row items-center justify-between">
              <Text kind="mono" className="font-medium">
                {port.number}
              </Text>
              <Text kind="small" tone={differs ? 'warn' : 'soft'}>
                {differs ? '○ differs' : port.use}
              </Text>
            </View>
            <Socket use={port.use} active={there?.active ?? false} />
            <Text numberOfLines={1}>{what}</Text>
            <View className="flex-row flex-wrap justify-center gap-x-1">
              <Text kind="small">{protocol}</Text>
              <Text kind="monoSmall">{wire}</Text>
            </View>
            <Text kind="small" numberOfLines={1}>
              {port.label || now || ' '}
            </Text>
          </Pressable>
        );
      })}
    </View>
  );
}
