/** A step of a path: what is planned beside what is known, and what that rests on. */
import { spell, type Known, type STEP_STATES } from '../known';
import type { Subject } from '../../show/records';
import { nodeAge } from './heard';
import { streamAge } from './heardStreams';
import type { Scene, Whole } from './scene';

export interface PathStep {
  readonly about: Subject;
  /** `lamp`, `slot`, `visualiser`, `port`, `merge`, `sender`, `interface` */
  readonly kind: string;
  readonly name: string;
  readonly planned: string;
  readonly now: string;
  readonly known: Known;
  /** In sentences, with their age */
  readonly evidence: readonly string[];
  readonly state: (typeof STEP_STATES)[number];
}

export type Standing = readonly [state: PathStep['state'], known: Known, now: string];

export const step = (
  about: Subject,
  kind: string,
  name: string,
  planned: string,
  [state, known, now]: Standing,
  evidence: readonly string[] = [],
): PathStep => ({ about, kind, name, planned, now, known, evidence, state });

/** What is known and how old it is. */
export class Evidence {
  constructor(
    private readonly scene: Scene,
    private readonly whole: Whole,
  ) {}

  private age(key: string): string | undefined {
    const at = this.scene.seen.confirmed.get(key);
    return at === undefined ? undefined : `${spell(this.whole.heard.at - at)} ago`;
  }

  stream(sender: string, key: number): string[] {
    const age = this.age(streamAge(sender, key));
    return age === undefined ? ['No packet of it came here.'] : [`Its last packet came here ${age}.`];
  }

  node(id: string): string[] {
    const age = this.age(nodeAge(id));
    return age === undefined ? ['It never answered.'] : [`Its last answer came ${age}.`];
  }
}
