/** The types to choose from: those of the show, then the library; and which were used last. */
import { useMemo } from 'react';
import { footprintOf } from '@taxiarch/core/rig/fixture';
import type { FixtureKind, FixtureType } from '@taxiarch/core/show/records';
import { matchesWords } from '@taxiarch/core/network/jump';
import { LIBRARY } from '@taxiarch/core/rig/library';
import { Preference, usePreference } from '@/data/preferences';
import { useShow } from '@/data/show';

const RECENT = 8;
const recent = new Preference(localStorage, 'types used', '');

export const useRecentTypes = (): readonly string[] => usePreference(recent).split(' ');

export function noteUsed(id: string): void {
  const before = recent
    .read()
    .split(' ')
    .filter((one) => one !== id && one !== '');
  recent.write([id, ...before].slice(0, RECENT).join(' '));
}

export function useTypes(): readonly FixtureType[] {
  const { records } = useShow();
  return useMemo(() => {
    const own = new Set(records.type.map(({ id }) => id));
    return [...records.type, ...LIBRARY.filter(({ id }) => !own.has(id))];
  }, [records.type]);
}

export interface TypeFilter {
  readonly query: string;
  readonly kind: FixtureKind | '';
  readonly maker: string;
  /** A footprint that one of its modes has; empty for any. */
  readonly footprint: number | undefined;
}

/** Types that fit, those used last first, then by maker and name. */
export function findTypes(
  types: readonly FixtureType[],
  { query, kind, maker, footprint }: TypeFilter,
  recentIds: readonly string[],
): FixtureType[] {
  const rank = (type: FixtureType) => {
    const at = recentIds.indexOf(type.id);
    return at < 0 ? RECENT : at;
  };
  return types
    .filter(
      (type) =>
        !type.unknown &&
        (kind === '' || type.kind === kind) &&
        (maker === '' || type.maker === maker) &&
        (footprint === undefined || type.modes.some((mode) => footprintOf(mode) === footprint)) &&
        matchesWords(
          `${type.maker} ${type.name} ${type.kind} ${type.modes.map(({ name }) => name).join(' ')}`,
          query.trim(),
        ),
    )
    .sort((a, b) => rank(a) - rank(b) || a.maker.localeCompare(b.maker) || a.name.localeCompare(b.name));
}
