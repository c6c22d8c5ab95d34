/** How sure a cause is called, how facts are told apart and weighed, and which question tells most. */
import { bestQuestion } from './ask';
import { Facts, NONE, factKey, weightOf, type Fact } from './fact';
import { saysOf, surenessOf, type Suspect } from './judge';
import { namesOf, type Scene } from './scene';
import { answer, ferry } from './testing/scenes';
import { factText } from './words';

const light: Fact = { kind: 'port', id: 'machine-1', port: 3, trait: 'active' };
const suspect = (over: Partial<Suspect> = {}): Suspect =>
  ({ share: 0.95, explains: [light], leaves: [], contradicted: [], answers: new Map(), ...over }) as unknown as Suspect;

describe('how sure', () => {
  test.each<readonly [string, Partial<Suspect>]>([
    ['certain', { share: 0.9 }],
    ['likely', { share: 0.899 }],
    ['likely', { share: 0.5 }],
    ['open', { share: 0.499 }],
    ['likely', { leaves: [light] }],
    ['likely', { contradicted: [light] }],
    ['open', { share: 0.3, leaves: [light] }],
  ])('%s', (sure, over) => expect(surenessOf([suspect(over)], [])).toBe(sure));

  test('of two that are there only together neither is certain', () =>
    expect(surenessOf([suspect({ share: 1 })], [suspect(), suspect()])).toBe('likely'));

  const said = (says: string, over: Partial<Suspect>) =>
    suspect({ deviation: { says } as unknown as Suspect['deviation'], ...over });
  const cable = said('Its cable is out.', { share: 0.6 });

  test('where all that was observed fits two alike, nobody knows, and both are named', () => {
    const both = [cable, said('It is off.', { share: 0.3 })];
    expect(surenessOf(both, [])).toBe('open');
    expect(saysOf(both)).toBe('Its cable is out. Or: It is off.');
  });

  test.each<readonly [string, Partial<Suspect>]>([
    ['is much rarer', { share: 0.29 }],
    ['explains less', { share: 0.3, explains: [] }],
    ['is contradicted', { share: 0.3, contradicted: [light] }],
  ])('where the second %s, the first alone is named', (_, over) => {
    const both = [cable, said('It is off.', over)];
    expect(surenessOf(both, [])).toBe('likely');
    expect(saysOf(both)).toBe('Its cable is out.');
  });
});

const lamp = { kind: 'lamp', id: 'lamp-1', part: '' } as const;
const port = { kind: 'port', id: 'machine-1', part: '3' } as const;

describe('facts', () => {
  const ALL: readonly (readonly [Fact, weight: number])[] = [
    [{ kind: 'hears', what: 'sacn' }, 1],
    [{ kind: 'hears', what: 'nodes' }, 1],
    [{ kind: 'stream', id: 'desk', wire: 7, trait: 'there' }, 1],
    [{ kind: 'stream', id: 'desk', wire: 8, trait: 'there' }, 1],
    [{ kind: 'stream', id: 'aft', wire: 7, trait: 'there' }, 1],
    [{ kind: 'stream', id: 'desk', wire: 7, trait: 'priority' }, 1],
    [{ kind: 'stream', id: 'desk', wire: 7, trait: 'levels' }, 2],
    [{ kind: 'stream', id: 'desk', wire: 7, trait: 'twin' }, 2],
    [{ kind: 'node', id: 'machine-1', trait: 'there' }, 4],
    [{ kind: 'node', id: 'machine-1', trait: 'address' }, 1],
    [{ kind: 'port', id: 'machine-1', port: 3, trait: 'wire' }, 3],
    [{ kind: 'port', id: 'machine-1', port: 4, trait: 'wire' }, 3],
    [light, 1],
    [{ kind: 'visualiser', id: 'machine-1', trait: 'there' }, 3],
    [{ kind: 'visualiser', id: 'machine-1', trait: 'address' }, 1],
    [{ kind: 'receives', id: 'machine-1', wire: 7, trait: 'lists' }, 0.5],
    [{ kind: 'receives', id: 'machine-1', wire: 7, trait: 'gets' }, 0.5],
    [{ kind: 'lamp', id: 'lamp-1', trait: 'there' }, 3],
    [{ kind: 'lamp', id: 'lamp-1', trait: 'mode' }, 3],
    [{ kind: 'answer', about: lamp, question: 'lit' }, 3],
    [{ kind: 'answer', about: port, question: 'light' }, 3],
  ];

  test('are told apart, and weigh what they stand for', () => {
    expect(new Set(ALL.map(([fact]) => factKey(fact))).size).toBe(ALL.length);
    expect(ALL.map(([fact]) => weightOf(fact))).toEqual(ALL.map(([, weight]) => weight));
  });

  test('differ where one says otherwise, or says what the other does not; each once', () => {
    const [one, other] = [new Facts(), new Facts()];
    const [heard, steady, gone, come] = ALL.map(([fact]) => fact);
    for (const facts of [one, other]) facts.set(heard!, 'yes');
    one.set(steady!, '1');
    other.set(steady!, '2');
    one.set(gone!, 'yes');
    other.set(come!, 'yes');
    expect(one.differing(other)).toEqual([steady, gone, come]);
    expect(other.differing(one)).toEqual([steady, come, gone]);
    expect([one.get(come!), one.has(come!), one.get(heard!)]).toEqual([NONE, false, 'yes']);
  });

  test('a copy stands by itself', () => {
    const first = new Facts();
    first.set(light, 'yes');
    const copy = new Facts(first);
    copy.delete(light);
    expect([first.has(light), copy.has(light)]).toEqual([true, false]);
    expect([...first.of('port')]).toEqual([light]);
    expect([...first.of('node')]).toEqual([]);
  });
});

test('a protocol is called by its name', () => {
  const names = namesOf(ferry);
  const says = (what: 'sacn' | 'artnet' | 'nodes', value: string) => factText({ kind: 'hears', what }, value, names);
  expect([says('sacn', 'yes'), says('artnet', 'yes'), says('nodes', 'yes')]).toEqual([
    'sACN is heard',
    'Art-Net is heard',
    'A node is heard',
  ]);
  expect([says('sacn', NONE), says('nodes', NONE)]).toEqual([
    'Nothing is heard of sACN',
    'Nothing is heard of any node',
  ]);
});

describe('the question that tells most', () => {
  const scene = (...answers: ReturnType<typeof answer>[]) =>
    ({
      seen: { answers: new Map(answers.map((one) => [`${one.about.kind} ${one.about.id} ${one.question}`, one])) },
    }) as unknown as Scene;
  const saying = (share: number, lit: 'yes' | 'no', right: 'yes' | 'no' = 'yes') =>
    suspect({
      share,
      answers: new Map([
        ['lamp lamp-1 lit', answer(lamp, 'lit', lit)],
        ['lamp lamp-1 right', answer(lamp, 'right', right)],
      ]),
    });

  test('parts the likeliest causes evenly', () => {
    expect(bestQuestion([saying(0.5, 'yes'), saying(0.5, 'no')], scene())?.question).toBe('lit');
    expect(bestQuestion([saying(0.4, 'yes', 'no'), saying(0.3, 'no'), saying(0.3, 'yes')], scene())?.question).toBe(
      'right',
    );
  });

  test('is none where one cause stands alone, where all predict the same, or where it was answered', () => {
    expect(bestQuestion([], scene())).toBeUndefined();
    expect(bestQuestion([saying(1, 'yes')], scene())).toBeUndefined();
    expect(bestQuestion([saying(0.5, 'yes'), saying(0.5, 'yes')], scene())).toBeUndefined();
    expect(bestQuestion([saying(0.5, 'yes'), saying(0.5, 'no')], scene(answer(lamp, 'lit', 'yes')))).toBeUndefined();
    // Too unlikely to be asked about, and an answer too unlikely to be worth a walk.
    expect(bestQuestion([saying(0.98, 'yes'), saying(0.02, 'no')], scene())).toBeUndefined();
    expect(bestQuestion([saying(0.93, 'yes'), saying(0.07, 'no')], scene())).toBeUndefined();
    expect(bestQuestion([saying(0.9, 'yes'), saying(0.1, 'no')], scene())?.question).toBe('lit');
  });
});
