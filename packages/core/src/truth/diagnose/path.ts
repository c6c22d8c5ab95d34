/**
 * The path of something, step by step from the lamp to the interface of the sender: lamp, slot, port, merge, sender,
 * interface; what is planned beside what is known, and what that rests on.
 */
import { wireKey } from '../../base/address';
import { lampSteps } from './pathLamp';
import { portSteps } from './pathPort';
import { senderSteps, strangerSteps } from './pathSender';
import { Evidence, step, type PathStep } from './pathStep';
import type { Scene, Whole } from './scene';

function visualiserSteps(scene: Scene, evidence: Evidence): PathStep[] {
  return scene.world.visualisers
    .filter(({ id }) => scene.near.visualisers.has(id))
    .map(({ id, name, address, listens: all }) => {
      const said = scene.seen.visualisers.find((one) => one.id === id);
      // Of a link only what travels on it is asked.
      const listens =
        scene.near.subject.kind === 'link' ? all.filter((wire) => scene.near.wires.has(wireKey(wire))) : all;
      const artnet = listens.filter(({ protocol }) => protocol === 'artnet').map(wireKey);
      const lacks = artnet.filter((key) => !said?.gets.includes(key));
      return step(
        { kind: 'machine', id, part: '' },
        'visualiser',
        name,
        `${listens.length} universes at ${address}`,
        !said
          ? ['open', 'not known', 'does not answer']
          : lacks.length > 0
            ? ['broken', 'said', `gets ${artnet.length - lacks.length} of ${artnet.length} by Art-Net`]
            : artnet.length === 0
              ? ['open', 'not known', 'answers; of sACN it says nothing']
              : ['fine', 'said', `gets all ${artnet.length} by Art-Net`],
        evidence.node(id),
      );
    });
}

/** From the lamp back to the senders. */
export function pathOf(scene: Scene, whole: Whole): PathStep[] {
  const evidence = new Evidence(scene, whole);
  return [
    ...lampSteps(scene, whole, evidence),
    ...visualiserSteps(scene, evidence),
    ...portSteps(scene, evidence),
    ...senderSteps(scene, evidence),
    ...strangerSteps(scene, evidence),
  ];
}
