/** GDTF 1.2 (DIN SPEC 15800): a fixture type as it goes out. One that came from a file is edited there. */
import type { FixtureType } from '../../../show/records';
import { DESCRIPTION, openDescription } from './gdtf';
import { editDescription } from './gdtfEdit';
import { newDescription } from './gdtfMake';
import { makeZip, openZip } from './zip';
import { writeXml } from './xml';

/** Before anybody says when: a time that is the same each time, so that the same type makes the same bytes. */
const NO_TIME = '2020-01-01T00:00:00';

/**
 * A type as a GDTF file. `foreign` is the file that it was taken from: what was not edited goes out as it came. `at`
 * (ISO 8601) is written as the time of a file of our own.
 */
export function writeGdtf(type: FixtureType, foreign?: Uint8Array, at = NO_TIME): Uint8Array {
  const entries = foreign && openZip(foreign);
  const opened = entries?.ok ? openDescription(entries.value) : undefined;
  if (!foreign || !entries?.ok || !opened?.ok) return makeZip({ [DESCRIPTION]: writeXml(newDescription(type, at)) });
  const { entry, root, type: element } = opened.value;
  if (!editDescription(element, type)) return foreign;
  const { [entry]: _, ...others } = entries.value;
  return makeZip({ ...others, [DESCRIPTION]: writeXml(root) });
}

/** The name under which a type’s file goes into an archive. */
export const gdtfName = ({ maker, name }: Pick<FixtureType, 'maker' | 'name'>): string =>
  `${`${maker}@${name}`.replace(/[\\/:*?"<>|]/g, '_')}.gdtf`;
