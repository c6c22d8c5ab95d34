/** Who sits here: asked once a device, before the first thing that stands under somebody's name. */
import { Refusal } from './api';
import { Followed, useFollowed } from './emitter';
import { personName } from './preferences';

interface Asking {
  answer(name: string): void;
  dismiss(): void;
}

const asking = new Followed<Asking | null>(null);
let asked: Promise<string> | undefined;

/** The question that stands open, or null. */
export const useAsking = (): Asking | null => useFollowed(asking);

/** The name of whoever is here, asked for if nobody has said it yet; rejects if they do not say it. */
export function whoIsHere(): Promise<string> {
  const known = personName.read();
  if (known !== '') return Promise.resolve(known);
  asked ??= new Promise<string>((resolve, reject) => {
    const over = () => {
      asked = undefined;
      asking.set(null);
    };
    asking.set({
      answer(name) {
        personName.write(name);
        over();
        resolve(name);
      },
      dismiss() {
        over();
        reject(new Refusal('Nothing was done: say who you are first, for the history.'));
      },
    });
  });
  return asked;
}

/** A name for what must not wait: the one known, or a word for nobody. */
export const namedPerson = (): string => personName.read() || 'Somebody';
