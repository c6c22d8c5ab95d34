/** What came of matching by eye: as planned, elsewhere, not found; taken into the plan, or printed for whoever climbs up. */
import { useRouter } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import { lampName } from '@taxiarch/core/rig/patch';
import { takeSeen, type EyeReply, type EyeSession } from '@taxiarch/core/proving/eye';
import { rigSelection } from '@/data/selection';
import { useShow } from '@/data/show';
import { PlanPreview } from '@/forms/PlanPreview';
import { Button, Screen, Section, Sentence, StateWord, Text, count, printSheet, type StateName } from '@/ui';

interface Props {
  readonly reply: EyeReply;
  readonly how: EyeSession['how'];
  readonly onClose: () => void;
}

type State = EyeReply['lamps'][number]['state'];

/** In this order; what needs a person stands first. */
const STATES: readonly (readonly [state: State, title: string, mark: StateName])[] = [
  ['elsewhere', 'Elsewhere', 'differs'],
  ['not set', 'Matched, and not set', 'must fix'],
  ['not found', 'Not found', 'missing'],
  ['waiting', 'Not lit yet', 'missing'],
  ['being set', 'Being set', 'planned'],
  ['done', 'Done', 'done'],
];

export function EndedEye({ reply, how, onClose }: Props) {
  const show = useShow();
  const router = useRouter();
  const [taking, setTaking] = useState(false);
  const of = (...states: readonly State[]) => reply.lamps.filter(({ state }) => states.includes(state));
  const elsewhere = of('elsewhere');
  const open = of('not found', 'waiting');
  const unset = of('not set', 'being set');
  const taken = reply.running && taking ? takeSeen(show, reply.running) : undefined;
  const switches = () => {
    rigSelection.set([...elsewhere, ...unset, ...open].map(({ id }) => id));
    router.navigate('/rig/dip');
  };
  return (
    <Screen
      sentence={
        <Sentence>
          {count(of('done').length, 'lamp')} {how === 'asked' ? 'matched' : 'seen where planned'}
          {unset.length > 0 && `, ${unset.length} matched and not set`}
          {elsewhere.length > 0 && `, ${elsewhere.length} elsewhere`}
          {open.length > 0 && `, ${open.length} not found`}.
        </Sentence>
      }
      foot={taken && <PlanPreview plan={taken} act="Take into the plan" onDone={() => setTaking(false)} />}
      acts={
        <>
          <Button label="Print" onPress={() => printSheet('match-by-eye')} />
          {elsewhere.length + unset.length + open.length > 0 && (
            <Button label="What to set at each" short="Switches" onPress={switches} />
          )}
          {elsewhere.length > 0 && (
            <Button label="Take into the plan" look="main" grow onPress={() => setTaking(!taking)} />
          )}
          <Button label="Close" grow={elsewhere.length === 0} onPress={onClose} />
        </>
      }
    >
      <View nativeID="match-by-eye" className="gap-4">
        {STATES.map(([state, title, mark]) => {
          const some = of(state);
          if (some.length === 0) return null;
          return (
            <Section key={state} title={`${title}: ${some.length}`}>
              <View role="list" aria-label={title}>
                {some.map(({ id, says }) => {
                  const lamp = show.patch.lamp(id)?.lamp;
                  return (
                    <View
                      key={id}
                      role="listitem"
                      className="min-h-10 flex-row items-center gap-3 border-b border-line py-1"
                    >
                      <Text className="flex-1">{lamp ? lampName(lamp) : id}</Text>
                      <Text kind="small" className="flex-1">
                        {says}
                      </Text>
                      <StateWord state={mark} />
                    </View>
                  );
                })}
              </View>
            </Section>
          );
        })}
      </View>
    </Screen>
  );
}
