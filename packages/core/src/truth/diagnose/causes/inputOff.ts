/** An input that a desk is plugged into is off. */
import { nodesNear, pushTo, subject, type Cause } from '../cause';
import { capital } from '../words';
import { withPort } from '../../simulate';

export const inputOff: Cause = {
  id: 'input-off',
  title: 'An input that a desk is plugged into is off',
  common: 0.4,
  *find(scene) {
    for (const { id, ports } of nodesNear(scene))
      for (const { number, use } of ports) {
        if (use !== 'in') continue;
        yield {
          about: subject('port', id, String(number)),
          says: `${capital(scene.names.port(id, number))}, an input, is switched off.`,
          change: (world) => withPort(world, id, number, { disabled: true }),
          repair: pushTo(id, `Switch ${scene.names.port(id, number)} on.`),
        };
        const said = scene.seen.nodes.find((one) => one.id === id)?.ports.find((one) => one.number === number);
        if (said?.use === 'in' && said.wire !== ports.find((one) => one.number === number)!.wire)
          yield {
            about: subject('port', id, String(number)),
            says: `${capital(scene.names.port(id, number))}, an input, sends as another universe than planned.`,
            change: (world) => withPort(world, id, number, { wire: said.wire }),
            repair: pushTo(id, `Set ${scene.names.port(id, number)} as planned.`),
          };
      }
  },
};
