/** One slot: which lamp and attribute it is, who owns it, who else would, and taking it. */
import { Link } from 'expo-router';
import ChevronLeft from 'lucide-react-native/icons/chevron-left';
import ChevronRight from 'lucide-react-native/icons/chevron-right';
import X from 'lucide-react-native/icons/x';
import { View } from 'react-native';
import { fromWireKey, SLOTS, wireKey } from '@taxiarch/core/base/address';
import { controlText, movesNothing } from '@taxiarch/core/network/flow';
import type { UniverseReport } from '@taxiarch/core/signal/stream';
import { attributeLabel, joinValue } from '@taxiarch/core/rig/fixture';
import { type Claim, slotsOf } from '@taxiarch/core/rig/patch';
import type { Pennant } from '@taxiarch/core/show/records';
import { whySlot } from '@taxiarch/core/truth/trace';
import { onWire, useContenders, useSlots } from '@/data/live';
import { whyHref } from '@/data/diagnosis';
import { useShow } from '@/data/show';
import { TakeSlot } from '@/areas/prove/TakeSlot';
import { Button, PennantFlag, Text, clockTime, spell } from '@/ui';
import type { NamedUniverse } from '@/data/universes';
import { WRITTEN, type Unit } from './units';

interface Props {
  universe: NamedUniverse;
  report: UniverseReport | undefined;
  /** From 0 */
  slot: number;
  unit: Unit;
  pennants: ReadonlyMap<number, Pennant>;
  onStep: (slot: number) => void;
  onClose: () => void;
}

/** “Pan, fine byte”, with cell and unused slots said. */
function claimWords({ channel, byte, offset }: Claim): string {
  if (!channel) return `unused (slot ${offset} of the lamp)`;
  const cell = channel.cell === undefined ? '' : ` of cell ${channel.cell}`;
  const part = channel.offsets.length > 1 ? (byte === 0 ? ', coarse' : ', fine') : '';
  return `${attributeLabel(channel.attribute)}${cell}${part}`;
}

function ClaimLine({ claim }: { claim: Claim }) {
  const { channel, lamp } = claim;
  const { records } = useShow();
  const slots = channel && channel.offsets.length > 1 ? onWire(slotsOf(claim.patched, channel), records.universe) : [];
  const now = useSlots(slots);
  const whole =
    slots.length > 0 && now.every(Boolean) && now.length === slots.length
      ? joinValue(now.map((one) => one!.value))
      : undefined;
  return (
    <View>
      <Link href={`/rig/${claim.patched.run ? 'pixels/' : ''}${lamp.id}`} asChild>
        <Text kind="strong" tone="press">
          {lamp.number} {lamp.name}
        </Text>
      </Link>
      <Text>{claimWords(claim)}</Text>
      <Text kind="small">
        {claim.patched.type.maker} {claim.patched.type.name}, {claim.patched.mode.name}
        {whole !== undefined && ` · coarse and fine together ${whole}`}
      </Text>
    </View>
  );
}

export function SlotSheet({ universe, report, slot, unit, pennants, onStep, onClose }: Props) {
  const { patch, records } = useShow();
  const moves = records.control.filter(({ wire, channel }) => wireKey(wire) === universe.key && channel === slot + 1);
  const { protocol } = fromWireKey(universe.key);
  const claims = universe.plan ? patch.at({ universe: universe.plan.number, channel: slot + 1 }) : [];
  const [now] = useSlots([{ key: universe.key, slot }]);
  const contenders = useContenders(universe.key, slot)?.contenders ?? [];
  const streamOf = (mark: number) => report?.streams.find((stream) => stream.mark === mark);
  const nameOf = (mark: number) => streamOf(mark)?.name || streamOf(mark)?.address || 'a sender';
  const owner = now?.owner === null || now === undefined ? undefined : streamOf(now.owner);
  const address = universe.plan ? `${universe.plan.number}/${slot + 1}` : `slot ${slot + 1}`;
  return (
    <View role="region" aria-label={`Slot ${slot + 1}`} className="gap-3 p-4">
      <View className="flex-row items-center gap-2">
        <Text kind="monoTitle">{address}</Text>
        <Text kind="monoTitle" testID="slot-value" className="flex-1 text-right">
          {now ? WRITTEN[unit][now.value] : '–'}
        </Text>
        <Button
          label="Slot before"
          icon={ChevronLeft}
          iconOnly
          disabled={slot === 0}
          onPress={() => onStep(slot - 1)}
        />
        <Button
          label="Slot after"
          icon={ChevronRight}
          iconOnly
          disabled={slot === SLOTS - 1}
          onPress={() => onStep(slot + 1)}
        />
        <Button label="Close" look="bare" icon={X} iconOnly onPress={onClose} />
      </View>

      {moves.map((control) => (
        <View key={control.id}>
          <Link href={'/flow/map'} asChild>
            <Text kind="strong" tone="press">
              Input: {controlText(control, records)}
            </Text>
          </Link>
          <Text kind="small">{movesNothing(control, records, patch) ?? 'This channel moves that here.'}</Text>
        </View>
      ))}
      {claims.length === 0 && moves.length > 0 ? null : claims.length === 0 ? (
        <Text kind="soft">{universe.plan ? 'No lamp is patched here.' : 'This universe is not in the show.'}</Text>
      ) : (
        claims.map((claim) => <ClaimLine key={`${claim.lamp.id} ${claim.offset}`} claim={claim} />)
      )}

      <View className="gap-1 border-t border-line pt-2">
        {owner ? (
          <View className="flex-row items-center gap-2">
            <PennantFlag pennant={pennants.get(owner.mark)!} />
            <Text kind="strong">{owner.name || owner.address}</Text>
            <Text kind="small">sends since {clockTime(owner.firstSeen)}</Text>
          </View>
        ) : (
          <Text kind="strong">Nobody owns this slot now.</Text>
        )}
        {contenders.length > 0 && (
          <Text kind="small">
            <Text kind="label">Why? </Text>
            {whySlot(
              contenders.map((one) => ({ ...one, name: nameOf(one.mark) })),
              universe.plan?.merge ?? 'htp',
              protocol,
            )}
          </Text>
        )}
        {universe.plan && (
          <Link href={whyHref({ kind: 'slot', id: String(universe.plan.number), part: String(slot + 1) })} asChild>
            <Text kind="small" tone="press" className="py-1">
              Why? Its whole path
            </Text>
          </Link>
        )}
        {contenders.length > 1 &&
          contenders.map(({ mark, value, priority, age }) => (
            <View key={mark} className="flex-row items-center gap-2">
              {pennants.get(mark) && <PennantFlag pennant={pennants.get(mark)!} size={16} />}
              <Text kind="small" tone="text" className="flex-1">
                {nameOf(mark)}
              </Text>
              <Text kind="monoSmall">
                {priority < 0 ? 'no control' : `${WRITTEN[unit][value]}${protocol === 'sacn' ? ` at ${priority}` : ''}`}
              </Text>
              <Text kind="small">{age === null ? '' : `${spell(age)} ago`}</Text>
            </View>
          ))}
      </View>

      <TakeSlot universe={universe} channel={slot + 1} value={now?.value ?? 0} />
    </View>
  );
}
