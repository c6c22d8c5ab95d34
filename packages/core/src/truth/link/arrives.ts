/** Whether what is sent arrives at the visualiser: it says so of Art-Net, and of sACN only a person can tell. */
import { formatUniverses } from '../../base/address';
import { ask, fine, wrong, type Case, type DoctorLine } from './doctorLine';

const TITLE = 'It arrives';

export function arrives(one: Case): DoctorLine {
  const { link, universes, node, visualiser } = one;
  const light = `Light one lamp of the link, and look whether it lights in ${visualiser.name}.`;
  if (link.protocol === 'artnet' && node) {
    const listens = new Map(
      node.ports
        .filter(({ direction, sacn }) => direction === 'out' && !sacn)
        .map(({ portAddress, active }) => [portAddress, active]),
    );
    const told = universes.filter(({ sent }) => sent && listens.has(sent.number));
    if (told.length === universes.length && told.length > 0) {
      const lacks = told.filter(({ sent }) => !listens.get(sent!.number)).map(({ universe }) => universe);
      return lacks.length === 0
        ? fine('arrives', TITLE, `${visualiser.name} says that all ${told.length} come in.`, 'said')
        : wrong(
            'arrives',
            TITLE,
            `${visualiser.name} says that nothing comes in for ${formatUniverses(lacks)}.`,
            `Look at its interface, and start it again after ${one.sender.name}.`,
            'said',
          );
    }
  }
  return ask(one, 'arrives', TITLE, `Whether it arrives at ${visualiser.name} cannot be heard from here.`, light);
}
