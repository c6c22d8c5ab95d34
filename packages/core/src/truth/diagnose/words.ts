/** Facts as words that a person reads. */
import { formatWire, fromWireKey } from '../../base/address';
import type { Names } from './scene';

export const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

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
function about(key: string, names: Names): string {
  const [kind, id = '', part = ''] = key.split(' ');
  return kind === 'port' ? names.port(id, Number(part)) : names.of(id);
}

export const questionText = (key: string, names: Names): string =>
  (QUESTIONS[key.split(' ').at(-1)!] ?? '{}?').replace('{}', about(key, names));

/** A fact and its value as a short sentence; `none` where it is missing. */
export function factText(fact: string, value: string, names: Names): string {
  const [kind, ...rest] = fact.split(' ');
  const [id = '', a = '', b = ''] = rest;
  const missing = value === 'none';
  switch (kind) {
    case 'hears':
      return missing
        ? `Nothing is heard of ${id === 'nodes' ? 'any node' : id === 'sacn' ? 'sACN' : 'Art-Net'}`
        : `${id} is heard`;
    case 'stream': {
      const what = `${names.of(id)} on ${wireText(a)}`;
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
      if (a === '') return missing ? `${names.of(id)} does not answer` : `${names.of(id)} answers`;
      const said: Readonly<Record<string, string>> = {
        address: `is at ${value}`,
        firmware: `runs firmware ${value}`,
        failSafe: `does “${value}” when signal is lost`,
        mask: `has a mask of ${value} bits`,
        priority: `sends its input at priority ${value}`,
        doubled: missing ? 'is alone at its address' : 'shares its address with another box',
      };
      return missing && a !== 'doubled'
        ? `${names.of(id)} says nothing of its ${a}`
        : `${names.of(id)} ${said[a] ?? `${a} ${value}`}`;
    }
    case 'port': {
      const port = capital(names.port(id, Number(a)));
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
      if (a === '') return missing ? `${names.of(id)} does not answer` : `${names.of(id)} answers`;
      if (a === 'address') return `${names.of(id)} is at ${value}`;
      return `${names.of(id)} ${missing ? (a === 'gets' ? 'gets nothing of' : 'does not listen to') : a === 'gets' ? 'gets' : 'listens to'} ${wireText(b)}`;
    }
    case 'lamp': {
      const lamp = capital(names.of(id));
      if (missing) return a === 'says' ? `${lamp} answers nothing` : `${lamp} does not say its ${a}`;
      if (a === 'says') return `${lamp} answers`;
      const what = { on: 'port', set: 'start address', mode: 'mode' }[a] ?? a;
      return `${lamp} answers ${value === 'planned' ? 'as planned' : 'otherwise than planned'}: its ${what}`;
    }
    default:
      return `${questionText(rest.join(' '), names)} ${value}`;
  }
}
