/** Facts as words that a person reads. */
import { formatWire, fromWireKey } from '../../base/address';
import type { Subject } from '../../show/records';
import { NONE, type Fact, type NodeTrait, type StreamTrait } from './fact';
import type { Names } from './scene';

export const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

const wireText = (key: number): string => formatWire(fromWireKey(key));

/** What people are asked; `{}` stands for what it is about. */
export const QUESTIONS: Readonly<Record<string, string>> = {
  on: 'Are the lights of {} on?',
  link: 'Does the network light of {} flash?',
  sends: 'Does {} itself say that its network output is on?',
  light: 'Is the light at {} on?',
  cable: 'Is the DMX cable of {} plugged in at both ends?',
  lit: 'Light {}: does it light?',
  right: 'Light {}: does it do what its channels say?',
};

const about = ({ kind, id, part }: Subject, names: Names): string =>
  kind === 'port' ? names.port(id, Number(part)) : names.of(id);

export const questionText = (asked: { readonly about: Subject; readonly question: string }, names: Names): string =>
  (QUESTIONS[asked.question] ?? '{}?').replace('{}', about(asked.about, names));

const HEARD_OF = { sacn: 'sACN', artnet: 'Art-Net', nodes: 'any node' } as const;
const IS_HEARD = { ...HEARD_OF, nodes: 'A node' } as const;

const EFFECT_WORDS: Readonly<Record<string, string>> = {
  nothing: 'controls no slot',
  some: 'controls only some of the slots that lamps need',
  discarded: 'its packets are discarded',
};
const STREAM_WORDS: Readonly<Record<Exclude<StreamTrait, 'there'>, (value: string, missing: boolean) => string>> = {
  priority: (value) => `priority ${value}`,
  pace: (value, missing) => (missing ? 'steady' : value),
  waits: (_, missing) => (missing ? 'waits for nothing' : 'waits for synchronisation'),
  levels: (_, missing) => (missing ? 'brings levels' : 'brings no levels'),
  slots: (value, missing) => (missing ? '512 slots' : `${value} slots`),
  twin: (_, missing) => (missing ? 'one component id' : 'a component id that another has too'),
  from: (value) => `from ${value}`,
  effect: (value) => EFFECT_WORDS[value] ?? 'controls its slots',
};

const NODE_WORDS: Readonly<Record<Exclude<NodeTrait, 'there' | 'doubled'>, (value: string) => string>> = {
  address: (value) => `is at ${value}`,
  firmware: (value) => `runs firmware ${value}`,
  failSafe: (value) => `does “${value}” when signal is lost`,
  mask: (value) => `has a mask of ${value} bits`,
  priority: (value) => `sends its input at priority ${value}`,
};

const USES: Readonly<Record<string, string>> = { out: 'an output', in: 'an input' };

function portText({ id, port: number, trait }: Fact & { kind: 'port' }, value: string, names: Names): string {
  const port = capital(names.port(id, number));
  const missing = value === NONE;
  switch (trait) {
    case 'active':
      if (value === 'yes') return `${port} says that signal passes`;
      return missing ? `${port} says nothing` : `${port} says that nothing comes in`;
    case 'merging':
      return missing ? `${port} does not merge` : `${port} merges`;
    case 'use':
      return missing ? `${port} says nothing` : `${port} is ${USES[value] ?? 'off'}`;
    default:
      return missing ? `${port} says nothing of its ${trait}` : `${port}: ${trait} ${value}`;
  }
}

/** A fact and its value as a short sentence; {@link NONE} where it is missing. */
export function factText(fact: Fact, value: string, names: Names): string {
  const missing = value === NONE;
  switch (fact.kind) {
    case 'hears':
      return missing ? `Nothing is heard of ${HEARD_OF[fact.what]}` : `${IS_HEARD[fact.what]} is heard`;
    case 'stream': {
      const what = `${names.of(fact.id)} on ${wireText(fact.wire)}`;
      if (fact.trait === 'there') return missing ? `${what} is not heard` : `${what} is heard`;
      return `${what}: ${STREAM_WORDS[fact.trait](value, missing)}`;
    }
    case 'node': {
      const node = names.of(fact.id);
      if (fact.trait === 'there') return missing ? `${node} does not answer` : `${node} answers`;
      if (fact.trait === 'doubled')
        return `${node} ${missing ? 'is alone at its address' : 'shares its address with another box'}`;
      return missing ? `${node} says nothing of its ${fact.trait}` : `${node} ${NODE_WORDS[fact.trait](value)}`;
    }
    case 'port':
      return portText(fact, value, names);
    case 'visualiser': {
      const name = names.of(fact.id);
      if (fact.trait === 'address') return `${name} is at ${value}`;
      return missing ? `${name} does not answer` : `${name} answers`;
    }
    case 'receives': {
      const does = fact.trait === 'gets' ? ['gets', 'gets nothing of'] : ['listens to', 'does not listen to'];
      return `${names.of(fact.id)} ${does[Number(missing)]!} ${wireText(fact.wire)}`;
    }
    case 'lamp': {
      const lamp = capital(names.of(fact.id));
      if (fact.trait === 'there') return missing ? `${lamp} answers nothing` : `${lamp} answers`;
      if (missing) return `${lamp} does not say its ${fact.trait}`;
      const what = { on: 'port', set: 'start address', mode: 'mode' }[fact.trait];
      return `${lamp} answers ${value === 'planned' ? 'as planned' : 'otherwise than planned'}: its ${what}`;
    }
    case 'answer':
      return `${questionText(fact, names)} ${value}`;
  }
}
