/** One act at a time, with the sentence of what stood against it. */
import { useState } from 'react';

export function useAct() {
  const [trouble, setTrouble] = useState('');
  const [busy, setBusy] = useState('');
  /** `name` says which of several is under way. */
  const act = async (name: string, work: () => Promise<void>) => {
    setTrouble('');
    setBusy(name);
    try {
      await work();
    } catch (error) {
      setTrouble((error as Error).message);
    } finally {
      setBusy('');
    }
  };
  return { act, trouble, busy };
}
