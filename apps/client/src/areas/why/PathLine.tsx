/** The path as a line that one thumb walks: from the sender down to the lamp, planned beside what is known. */
import { Link, type Href } from 'expo-router';
import { Pressable, View } from 'react-native';
import type { WhyReport } from '@taxiarch/core/truth/known';
import type { Subject } from '@taxiarch/core/show/records';
import { KnownMark, StateWord, Text } from '@/ui';

type Step = WhyReport['path'][number];

const WORDS = { fine: 'fine', broken: 'must fix', open: 'open' } as const;
const EDGES = { fine: 'border-fine', broken: 'border-fault', open: 'border-warn' } as const;

/** Where more is told of a step. */
function hrefOf({ kind, id, part }: Subject): Href {
  switch (kind) {
    case 'lamp':
      return `/rig/${id}`;
    case 'stream':
      return `/listen/u${id}`;
    case 'universe':
      return `/listen/u${id}`;
    case 'slot':
      return `/listen/u${id}?slot=${part}`;
    case 'port':
      return `/wire/ports/${id}`;
    case 'link':
      return `/flow/links/${id}`;
    default:
      return part === '' ? `/wire/${id}` : `/wire/ports/${id}`;
  }
}

function StepRow({ step, first }: { step: Step; first: boolean }) {
  const { about, name, planned, now, known, evidence, state } = step;
  return (
    <View role="listitem" className={`gap-1 border-l-4 py-2 pl-3 ${EDGES[state]}`}>
      <View className="flex-row items-center gap-2">
        <Link href={hrefOf(about)} asChild>
          <Pressable className="min-h-8 flex-1 justify-center active:opacity-70">
            <Text kind="strong" tone="press" numberOfLines={2}>
              {name}
            </Text>
          </Pressable>
        </Link>
        <StateWord state={WORDS[state]} />
      </View>
      {first && (
        <Text kind="label" tone="fault">
          Here it breaks first
        </Text>
      )}
      <Text kind="small">Planned: {planned}</Text>
      <Text tone={state === 'broken' ? 'fault' : 'text'}>Now: {now}</Text>
      <KnownMark known={known} of={name} evidence={evidence} />
    </View>
  );
}

export function PathLine({ path, broken }: { path: readonly Step[]; broken: number | null }) {
  // As the light goes: from the sender on.
  const steps = path.map((step, i) => ({ step, first: i === broken })).reverse();
  return (
    <View role="list" aria-label="The path" className="gap-1">
      {steps.map(({ step, first }) => (
        <StepRow key={`${step.kind} ${step.about.id} ${step.about.part} ${step.name}`} step={step} first={first} />
      ))}
    </View>
  );
}
