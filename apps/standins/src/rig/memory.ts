/** What lamps are set to outlives a restart: kept in a file beside those of the boxes. */
import { mkdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { dirname } from 'node:path';
import type { HungRig, LampFaults, Plug } from '@taxiarch/core/truth/hung';
import type { ResponderState } from '@taxiarch/core/protocol/rdm';

interface KeptLamp {
  readonly state: ResponderState;
  readonly plug: Plug | null;
  readonly order: number;
  readonly faults: LampFaults;
}

/** Writing waits this long for more to come: one push sets a hundred lamps. */
const GATHER_MS = 200;

export class RigMemory {
  private timer: NodeJS.Timeout | undefined;

  /** Without a file the rig is as it was hung at every start. */
  constructor(
    private readonly path: string | undefined,
    private readonly rig: HungRig,
  ) {
    this.load();
  }

  private load(): void {
    if (this.path === undefined) return;
    let kept: Readonly<Record<string, KeptLamp>>;
    try {
      kept = JSON.parse(readFileSync(this.path, 'utf8')) as typeof kept;
    } catch {
      return;
    }
    for (const lamp of this.rig.lamps) {
      const its = kept[lamp.hung.tag];
      if (!its) continue;
      Object.assign(lamp, { plug: its.plug, order: its.order });
      lamp.responder.state = its.state;
      lamp.err(its.faults);
    }
    this.rig.moved();
  }

  keep(): void {
    if (this.path === undefined) return;
    this.timer ??= setTimeout(() => this.write(this.path!), GATHER_MS);
  }

  private write(path: string): void {
    this.timer = undefined;
    const kept = Object.fromEntries(
      this.rig.lamps.map(({ hung, responder, plug, order, faults }): [string, KeptLamp] => [
        hung.tag,
        { state: responder.state, plug, order, faults },
      ]),
    );
    mkdirSync(dirname(path), { recursive: true });
    writeFileSync(`${path}.new`, JSON.stringify(kept));
    renameSync(`${path}.new`, path);
  }
}
