/** The body of a type of our own (DIN SPEC 15800, geometry collect): axes, beams, and cells by reference at their places. */
import { blockOf, lightsWith } from '../../../rig/fixture';
import type { FixtureChannel, FixtureMode, FixtureType } from '../../../show/records';
import { XmlElement } from './xml';

type Point = readonly [number, number, number];

/** A place within the parent, metres; nothing is turned. */
const position = ([x, y, z]: Point): string =>
  `{1,0,0,${x.toFixed(3)}}{0,1,0,${y.toFixed(3)}}{0,0,1,${z.toFixed(3)}}{0,0,0,1}`;

/** From one cell to the next, m */
const PITCH = 0.06;

/** Where cell `i` of `count` lies: in a square where the type is one, else in a row. */
function cellPlace({ kind }: FixtureType, i: number, count: number): Point {
  const square = ['panel', 'wall', 'wash', 'spot'].includes(kind);
  const columns = square ? Math.ceil(Math.sqrt(count)) : count;
  const rows = Math.ceil(count / columns);
  const across = (i % columns) - (columns - 1) / 2;
  const down = Math.floor(i / columns) - (rows - 1) / 2;
  return [across * PITCH, down * PITCH, 0];
}

/** Cells that are alike: the same channels, each cell moved by some slots against the first. */
interface Family {
  readonly block: number;
  /** Of the first cell, their slots counted within the cell */
  readonly channels: readonly FixtureChannel[];
  /** First slot of each cell */
  readonly begins: readonly number[];
}

/** Channels of a mode as they are hung on the body. */
interface Hung {
  readonly families: readonly Family[];
  /** All others; a cell among them is one that is like no other */
  readonly single: readonly FixtureChannel[];
}

const plain = ({ offsets, cell: _, ...rest }: FixtureChannel, begin: number): string =>
  JSON.stringify({ ...rest, offsets: offsets.map((offset) => offset - begin) });

/** Families of cells numbered from 1 on; what does not fit into one stays single. */
function hang({ channels }: FixtureMode): Hung {
  const single: FixtureChannel[] = [];
  // By block and by how many cells have the attribute: 8 cells of three colours and 4 of white are two families.
  const numbersOf = new Map<string, number>();
  const key = ({ attribute, block = 1 }: FixtureChannel) => `${block} ${attribute}`;
  for (const channel of channels)
    if (channel.cell !== undefined) numbersOf.set(key(channel), (numbersOf.get(key(channel)) ?? 0) + 1);
  const groups = new Map<string, Map<number, FixtureChannel[]>>();
  for (const channel of channels) {
    if (channel.cell === undefined) {
      single.push(channel);
      continue;
    }
    const name = `${blockOf(channel)} ${numbersOf.get(key(channel))}`;
    const cells = groups.get(name) ?? new Map<number, FixtureChannel[]>();
    groups.set(name, cells.set(channel.cell, [...(cells.get(channel.cell) ?? []), channel]));
  }
  const families: Family[] = [];
  for (const cells of groups.values()) {
    const sorted = [...cells].sort(([a], [b]) => a - b).map(([, its]) => its);
    const begins = sorted.map((its) => Math.min(...its.flatMap(({ offsets }) => offsets)) - 1);
    const shapes = new Set(sorted.map((its, i) => its.map((one) => plain(one, begins[i]!)).join()));
    const numbered = [...cells.keys()].sort((a, b) => a - b).every((cell, i) => cell === i + 1);
    if (shapes.size !== 1 || !numbered) {
      single.push(...sorted.flat());
      continue;
    }
    families.push({
      block: blockOf(sorted[0]![0]!),
      channels: sorted[0]!.map((one) => ({ ...one, offsets: one.offsets.map((offset) => offset - begins[0]!) })),
      begins: begins.map((begin) => begin + 1),
    });
  }
  return { families, single };
}

/** A channel, and the geometry that it belongs to. */
export interface Placed {
  readonly channel: FixtureChannel;
  readonly geometry: string;
}

export interface Body {
  /** Name of the geometry at the top */
  readonly root: string;
  readonly elements: readonly XmlElement[];
  readonly channels: readonly Placed[];
}

const shines = (attribute: string): boolean =>
  lightsWith(attribute) || /^(Shutter|ColorSub_|Color\d|Zoom)/.test(attribute);

function beamElement(name: string, type: FixtureType, at: Point, radius: number): XmlElement {
  const { beam, field, kind } = type;
  return new XmlElement('Beam', {
    Name: name,
    Position: position(at),
    BeamType: kind === 'spot' ? 'Spot' : 'Wash',
    BeamRadius: String(radius),
    // Left out, a reader takes 25 degrees for both; what nobody has said is not said here either.
    ...(beam > 0 && { BeamAngle: String(beam) }),
    ...(field > 0 && { FieldAngle: String(field) }),
  });
}

/** The body of one mode; `suffix` keeps its names apart from those of other modes. */
export function bodyOf(type: FixtureType, mode: FixtureMode, suffix: string): Body {
  const { families, single } = hang(mode);
  const own = (name: string) => `${name}${suffix}`;
  const has = (attribute: string) => mode.channels.some((one) => one.attribute === attribute);
  const elements: XmlElement[] = [];
  const root = new XmlElement('Geometry', { Name: own('Body'), Position: position([0, 0, 0]) });
  elements.push(root);
  let inner = root;
  const axis = (name: string, down: number) => {
    const made = new XmlElement('Axis', { Name: own(name), Position: position([0, 0, -down]) });
    inner.children.push(made);
    inner = made;
    return own(name);
  };
  const yoke = has('Pan') ? axis('Yoke', 0.1) : root.at('Name');
  const head = has('Tilt') ? axis('Head', 0.2) : yoke;
  const whole = single.filter(({ cell }) => cell === undefined);
  const light = whole.some(({ attribute }) => shines(attribute)) ? own('Light') : head;
  if (light !== head) inner.children.push(beamElement(light, type, [0, 0, -0.1], 0.08));

  const channels: Placed[] = [];
  // A channel is named by its geometry and attribute: a second one of the same attribute gets a geometry of its own.
  const used = new Set<string>();
  const place = (channel: FixtureChannel, wanted: string, holder: XmlElement): void => {
    let geometry = wanted;
    for (let n = 2; used.has(`${geometry} ${channel.attribute}`); n += 1) {
      geometry = `${wanted}, part ${n}`;
      if (!holder.children.some((one) => one.at('Name') === geometry))
        holder.children.push(new XmlElement('Geometry', { Name: geometry, Position: position([0, 0, 0]) }));
    }
    used.add(`${geometry} ${channel.attribute}`);
    channels.push({ channel, geometry });
  };
  const inHead = (attribute: string): string => (attribute === 'Pan' ? yoke : attribute === 'Tilt' ? head : light);
  const singleCells = new Map<number, XmlElement>();
  for (const channel of single) {
    const { cell, attribute } = channel;
    if (cell === undefined) place(channel, inHead(attribute), inner);
    else {
      // By this name it is read as that cell again.
      const name = `Cell ${cell}${suffix}`;
      const beam = singleCells.get(cell) ?? beamElement(name, type, [cell * PITCH, 0, -0.1], 0.02);
      if (!singleCells.has(cell)) inner.children.push(beam);
      singleCells.set(cell, beam);
      place(channel, name, beam);
    }
  }
  families.forEach(({ block, channels: its, begins }, which) => {
    const name = own(`Cell${which === 0 ? '' : ` ${String.fromCharCode(65 + which)}`}`);
    const beam = beamElement(name, type, [0, 0, 0], 0.02);
    elements.push(beam);
    begins.forEach((begin, i) => {
      const [x, y, z] = cellPlace(type, i, begins.length);
      inner.children.push(
        new XmlElement(
          'GeometryReference',
          { Name: `${name} ${i + 1}`, Geometry: name, Position: position([x, y, z - 0.1]) },
          [new XmlElement('Break', { DMXBreak: String(block), DMXOffset: String(begin) })],
        ),
      );
    });
    for (const channel of its) place(channel, name, beam);
  });
  return { root: root.at('Name'), elements, channels };
}
