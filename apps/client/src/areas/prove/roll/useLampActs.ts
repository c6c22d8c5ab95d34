/** Doing something to lamps: while safe a person is asked first; what is refused is said. */
import { useState } from 'react';
import type { LampOutcome } from '@taxiarch/core/truth/roll';
import { useHot } from '@/data/live';
import { makeHot } from '@/data/output';

export interface LampActs {
  readonly trouble: string;
  readonly results: readonly LampOutcome[] | undefined;
  readonly working: boolean;
  /** A person is asked whether to make hot. */
  readonly asking: boolean;
  readonly act: (work: () => Promise<readonly LampOutcome[] | void>) => void;
  readonly answer: (yes: boolean) => void;
  readonly close: () => void;
}

export function useLampActs(): LampActs {
  const hot = useHot();
  const [trouble, setTrouble] = useState('');
  const [results, setResults] = useState<readonly LampOutcome[]>();
  const [working, setWorking] = useState(false);
  const [waiting, setWaiting] = useState<(() => Promise<readonly LampOutcome[] | void>) | undefined>();
  const run = async (work: () => Promise<readonly LampOutcome[] | void>) => {
    setTrouble('');
    setWorking(true);
    try {
      const came = await work();
      if (came) setResults(came);
    } catch (error) {
      setTrouble((error as Error).message);
    }
    setWorking(false);
  };
  return {
    trouble,
    results,
    working,
    asking: waiting !== undefined,
    act: (work) => (hot ? void run(work) : setWaiting(() => work)),
    answer: (yes) => {
      const work = waiting;
      setWaiting(undefined);
      if (yes && work)
        void run(async () => {
          await makeHot(true);
          return work();
        });
    },
    close: () => setResults(undefined),
  };
}
