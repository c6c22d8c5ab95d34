/** Files of types within a scene that goes out (MVR, GDTFSpec). */
import type { FixtureType } from '../../../show/records';
import { gdtfName } from './gdtfOut';
import { entryNamed, type Entries } from './zip';

/** Type files as they go into the archive; never two under one name. */
export class TypeFiles {
  private readonly names = new Set<string>();
  readonly written: Record<string, Uint8Array> = {};

  constructor(private readonly entries: Entries) {
    for (const name of Object.keys(entries)) this.names.add(name.normalize('NFC').toLowerCase());
  }

  /** The entry of a type: the one that its lamps name already if that is this type, else one of its own. */
  put(type: Pick<FixtureType, 'maker' | 'name'>, bytes: Uint8Array, named: string | undefined): string {
    const there = named === undefined || named === '' ? undefined : this.entry(named);
    if (there !== undefined && this.written[there] === undefined) {
      this.written[there] = bytes;
      return named!;
    }
    const base = gdtfName(type).replace(/\.gdtf$/, '');
    let name = `${base}.gdtf`;
    for (let i = 2; this.names.has(name.normalize('NFC').toLowerCase()); i += 1) name = `${base} ${i}.gdtf`;
    this.names.add(name.normalize('NFC').toLowerCase());
    this.written[name] = bytes;
    return name;
  }

  private entry(spec: string): string | undefined {
    return entryNamed(this.entries, spec) ?? entryNamed(this.entries, `${spec}.gdtf`);
  }
}
