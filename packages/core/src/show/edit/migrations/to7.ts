/** What people answered to the doctor of a link became sightings of their own; who and when was not kept before. */
import type { Loose, LooseShow, Step } from './step';

interface AnsweredLink extends Loose {
  readonly id: string;
  readonly rev: number;
  readonly well?: readonly string[];
}

function answersApart(records: LooseShow): LooseShow {
  const links = (records['link'] ?? []) as readonly AnsweredLink[];
  const sightings = links.flatMap(({ id, rev, well = [] }) =>
    well.map((question) => ({
      id: `${id}-${question}`,
      rev,
      about: { kind: 'link', id, part: '' },
      question,
      answer: 'yes',
      by: '',
      at: '',
    })),
  );
  return {
    ...records,
    link: links.map(({ well: _well, ...link }) => link),
    sighting: [...(records['sighting'] ?? []), ...sightings],
  };
}

export const to7: Step = { to: 7, show: answersApart };
