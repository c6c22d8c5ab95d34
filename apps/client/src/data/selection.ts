/** Things that a person chose, in the order in which they were chosen; kept for the tab through reloads. */
import { Emitter, useFollowed } from './emitter';

export class Selection {
  private readonly changed = new Emitter();
  private ids: readonly string[];

  constructor(private readonly key: string) {
    this.ids = JSON.parse(sessionStorage.getItem(key) ?? '[]') as string[];
  }

  read = (): readonly string[] => this.ids;

  on = (listener: () => void): (() => void) => this.changed.on(listener);

  set(ids: readonly string[]): void {
    this.ids = [...new Set(ids)];
    sessionStorage.setItem(this.key, JSON.stringify(this.ids));
    this.changed.emit();
  }

  toggle(id: string): void {
    this.set(this.ids.includes(id) ? this.ids.filter((one) => one !== id) : [...this.ids, id]);
  }
}

/** Ids, in the order chosen. */
export const useSelection = (selection: Selection): readonly string[] => useFollowed(selection);

/** Lamps and runs for a walk. */
export const walkSelection = new Selection('walk');

/** Lamps to be changed together. */
export const rigSelection = new Selection('rig');

/** Machines to be pushed to, or given settings, together. */
export const machineSelection = new Selection('machines');
