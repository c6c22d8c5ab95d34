/** Taking with a person's consent: going hot is asked for once, and what goes wrong is a sentence. */
import { useState } from 'react';
import { useHot } from '@/data/live';
import { giveBack, makeHot, take } from '@/data/output';

export interface Taking {
  readonly hot: boolean;
  /** Slots that wait for the person to make Taxiarch hot. */
  readonly asking: Readonly<Record<string, number | null>> | null;
  readonly trouble: string;
  take(slots: Readonly<Record<string, number | null>>): Promise<void>;
  giveBack(slots?: readonly string[]): Promise<void>;
  /** The answer to being asked. */
  consent(yes: boolean): Promise<void>;
}

export function useTaking(): Taking {
  const hot = useHot();
  const [asking, setAsking] = useState<Readonly<Record<string, number | null>> | null>(null);
  const [trouble, setTrouble] = useState('');
  const trying = async (act: () => Promise<unknown>) => {
    setTrouble('');
    try {
      await act();
    } catch (error) {
      setTrouble((error as Error).message);
    }
  };
  return {
    hot,
    asking,
    trouble,
    take: async (slots) => {
      if (hot) await trying(() => take(slots));
      else setAsking(slots);
    },
    giveBack: (slots) => trying(() => giveBack(slots)),
    consent: async (yes) => {
      setAsking(null);
      if (yes && asking)
        await trying(async () => {
          await makeHot(true);
          await take(asking);
        });
    },
  };
}
