/** Facts as words that a person reads. */
import { formatWire, fromWireKey } from '../address';

export const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

type NameOf = (id: string) => string;

const wireText = (key: string): string => formatWire(fromWireKey(Number(key)));

/** What people are asked, by the end of a question's key; `{}` stands for what it is about. */
export const QUESTIONS: Readonly<Record<string, string>> = {
  on: 'Are the lights of {} on?',
  link: 'Does the network light of {} flash?',
  sends: 'Does {} itself say that its network output is on?',
  light: 'Is the light at {} on?',
  cable: 'Is the DMX cable of {} plugged in at both ends?',
  lit: 'Light {}: does it light?',
  right: 'Light {}: does it do what its channels say?',
};

/** What a key of an answer is about, in words. */
function about(key: string, nameOf: NameOf): string {
  const [kind, id = '', part = ''] = key.split(' ');
  if (kind === 'port') return `port ${part} of ${nameOf(id)}`;
  return nameOf(id);
}

export const questionText = (key: string, nameOf: NameOf): string =>
  (QUESTIONS[key.split(' ').at(-1)!] ?? '{}?').replace('{}', about(key, nameOf));

/** A fact and its value as a short sentence; `none` where it is missing. */
export function factText(fact: string, value: string, nameOf: NameOf): string {
  const [kind, ...rest] = fact.split(' ');
  const [id = '', a = '', b = ''] = rest;
  const missing = value === 'none';
  switch (kind) {
    case 'hears':
      return missing
        ? `Nothing is heard of ${id === 'nodes' ? 'any node' : id === 'sacn' ? 'sACN' : 'Art-Net'}`
        : `${id} is heard`;
    case 'stream': {
      const what = `${nameOf(id)} on ${wireText(a)}`;
      if (b === '') return missing ? `${what} is not heard` : `${what} is heard`;
      const said: Readonly<Record<string, string>> = {
        priority: `priority ${value}`,
        pace: missing ? 'steady' : value,
        waits: missing ? 'waits for nothing' : 'waits for synchronisation',
        levels: missing ? 'brings levels' : 'brings no levels',
        slots: missing ? '512 slots' : `${value} slots`,
        twin: missing ? 'one component id' : 'a component id that another has too',
        from: `from ${value}`,
      };
      return `${what}: ${said[b] ?? `${b} ${value}`}`;
    }
    case 'node': {
      if (a === '') return missing ? `${nameOf(id)} does not answer` : `${nameOf(id)} answers`;
      const said: Readonly<Record<string, string>> = {
        address: `is at ${value}`,
        firmware: `runs firmware ${value}`,
        failSafe: `does “${value}” when signal is lost`,
        mask: `has a mask of ${value} bits`,
        priority: `sends its input at priority ${value}`,
        doubled: missing ? 'is alone at its address' : 'shares its address with another box',
      };
      return missing && a !== 'doubled'
        ? `${nameOf(id)} says nothing of its ${a}`
        : `${nameOf(id)} ${said[a] ?? `${a} ${value}`}`;
    }
    case 'port': {
      const port = `Port ${a} of ${nameOf(id)}`;
      if (b === 'active')
        return value === 'yes'
          ? `${port} says that signal passes`
          : missing
            ? `${port} says nothing`
            : `${port} says that nothing comes in`;
      if (b === 'merging') return missing ? `${port} does not merge` : `${port} merges`;
      if (b === 'use')
        return missing
          ? `${port} says nothing`
          : `${port} is ${value === 'out' ? 'an output' : value === 'in' ? 'an input' : 'off'}`;
      return missing ? `${port} says nothing of its ${b}` : `${port}: ${b} ${value}`;
    }
    case 'visualiser': {
      if (a === '') return missing ? `${nameOf(id)} does not answer` : `${nameOf(id)} answers`;
      if (a === 'address') return `${nameOf(id)} is at ${value}`;
      return `${nameOf(id)} ${missing ? (a === 'gets' ? 'gets nothing of' : 'does not listen to') : a === 'gets' ? 'gets' : 'listens to'} ${wireText(b)}`;
    }
    default:
      return `${questionText(rest.join(' '), nameOf)} ${value}`;
  }
}
