import { LIBRARY } from '@taxiarch/core/rig/library';
import { footprintOf } from '@taxiarch/core/rig/fixture';
import { findTypes, type TypeFilter } from './choose';

const ANY: TypeFilter = { query: '', kind: '', maker: '', footprint: undefined };
const found = (over: Partial<TypeFilter>, recent: readonly string[] = []) =>
  findTypes(LIBRARY, { ...ANY, ...over }, recent);
const names = (types: readonly { maker: string; name: string }[]) => types.map(({ maker, name }) => `${maker} ${name}`);

test('without a filter all are there, by maker and name', () => {
  const all = names(found({}));
  expect(all).toHaveLength(LIBRARY.length);
  expect(all).toEqual([...all].sort((a, b) => a.localeCompare(b)));
});

test('words are found in any order and in any case, across maker, name, kind and modes', () => {
  const one = LIBRARY.find(({ name }) => name.includes(' '))!;
  const words = `${one.maker} ${one.name}`.split(' ');
  for (const query of [words.join(' '), [...words].reverse().join(' ').toUpperCase(), `  ${words.at(-1)}  ${words[0]}`])
    expect(names(found({ query }))).toContain(`${one.maker} ${one.name}`);
  expect(found({ query: `${words[0]} nonesuch` })).toEqual([]);
});

test('kind, maker and footprint each leave out what does not fit', () => {
  const [{ kind, maker, modes }] = LIBRARY as readonly [(typeof LIBRARY)[number]];
  expect(found({ kind }).every((one) => one.kind === kind)).toBe(true);
  expect(found({ maker }).every((one) => one.maker === maker)).toBe(true);
  const footprint = footprintOf(modes[0]!);
  const fit = found({ footprint });
  expect(fit.length).toBeGreaterThan(0);
  for (const one of LIBRARY) expect(fit.includes(one)).toBe(one.modes.some((mode) => footprintOf(mode) === footprint));
});

test('those used last come first, the newest before all', () => {
  const sorted = found({});
  const [older, newer] = [sorted.at(-1)!, sorted.at(-2)!];
  const recent = found({}, [newer.id, older.id]);
  expect(recent.slice(0, 2)).toEqual([newer, older]);
  expect(recent.slice(2)).toEqual(sorted.slice(0, -2));
});
