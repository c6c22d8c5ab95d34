/** What a press does: whether it is under way, and the sentence of what stood against it. */
import { useState } from 'react';

export interface Act {
  readonly act: (work: () => Promise<unknown>) => Promise<void>;
  readonly trouble: string;
  readonly busy: boolean;
}

export function useAct(): Act {
  const [trouble, setTrouble] = useState('');
  const [busy, setBusy] = useState(false);
  const act = async (work: () => Promise<unknown>) => {
    setTrouble('');
    setBusy(true);
    try {
      await work();
    } catch (error) {
      setTrouble((error as Error).message);
    } finally {
      setBusy(false);
    }
  };
  return { act, trouble, busy };
}
