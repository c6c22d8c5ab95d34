/** Another program that speaks CITP: its patch and its selection, as it said. */
import type { CitpFixture, CitpMessage } from './message';
import { LAST_NUMBER } from './constants';

export class CitpPeer {
  name = '';
  /** By fixture number */
  readonly patch = new Map<number, CitpFixture>();
  /** False while a row of patch messages is under way, and before any came */
  patchWhole = false;
  private readonly chosen = new Set<number>();

  get selected(): readonly number[] {
    return [...this.chosen].sort((a, b) => a - b);
  }

  /** True where the message changed something that is kept. */
  hear(message: CitpMessage): boolean {
    switch (message.kind) {
      case 'PNam':
        this.name = message.name;
        return true;
      case 'Ptch': {
        const { kind: _kind, last, ...fixture } = message;
        this.patch.set(message.number, fixture);
        this.patchWhole = last;
        return true;
      }
      case 'UPtc':
        if (message.numbers.length === 0) this.patch.clear();
        for (const number of message.numbers) this.patch.delete(number);
        return true;
      case 'Sele':
        if (message.whole) this.chosen.clear();
        for (const number of message.numbers) this.chosen.add(number);
        return true;
      case 'DeSe':
        if (message.numbers.length === 0) this.chosen.clear();
        for (const number of message.numbers) this.chosen.delete(number);
        return true;
      default:
        return false;
    }
  }

  /** The fixtures that an SPtc asks for, as messages in a row. */
  static row(fixtures: readonly CitpFixture[], asked: readonly number[]): CitpMessage[] {
    const wanted = asked.length === 0 ? fixtures : fixtures.filter(({ number }) => asked.includes(number));
    const told = wanted.filter(({ number }) => number >= 1 && number <= LAST_NUMBER);
    return told.map((fixture, i) => ({ kind: 'Ptch', last: i === told.length - 1, ...fixture }));
  }
}
