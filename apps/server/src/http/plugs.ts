/** DMX adapters: what runs, which ports are there, and the levels at both ends. */
import { placeOf, type Plugs } from '../plug/plugs';
import type { Bench } from '../practise/bench';
import type { ShowDoor } from '../bridge/showDoor';
import { ProblemError } from '../problemError';
import type { Handlers } from './api';

type PlugHandlers = Pick<Handlers, 'readPlugs' | 'runPlugs' | 'readPlugValues'>;

const PROBLEM = { taken: 'safe', 'not-found': 'not-here' } as const;

export const plugHandlers = (plugs: Plugs, show: ShowDoor, bench: Bench): PlugHandlers => ({
  readPlugs: async () => {
    const { ports, why } = await plugs.ports();
    return { plugs: plugs.report(), ports, why };
  },

  runPlugs: ({ body: { ids, on, by } }) => {
    for (const id of ids) {
      const done = plugs.run(id, on, by);
      if (!done.ok) throw new ProblemError(PROBLEM[done.reason as keyof typeof PROBLEM] ?? 'not-possible', done.why);
    }
    return plugs.report();
  },

  readPlugValues: async ({ params: { machine: id } }) => {
    const machine = show.plan().machine.find((one) => one.id === id);
    const place = machine && placeOf(machine);
    // The far end first: what is there has passed the plug by then.
    const far = place?.ok && place.value.kind === 'net' ? await bench.adapter(place.value.host) : undefined;
    const values = await plugs.values(id, far?.values);
    if (!values) throw new ProblemError('not-here', 'This adapter is not in the show, or its universe.');
    return {
      here: values.here && [...values.here],
      plug: values.plug && [...values.plug],
      far: far?.values ?? null,
      says: far?.says ?? '',
    };
  },
});
