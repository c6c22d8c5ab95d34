/** Ports that ask of a model what it cannot do. */
import { fitPort, planPorts, whyNot } from '../../network/machine';
import type { Check, Finding } from './finding';

export const capability: Check = {
  rule: 'beyond the model',
  *find({ machines }): Generator<Finding> {
    for (const { machine, model } of machines) {
      if (!model) continue;
      for (const port of machine.ports)
        for (const why of whyNot(model, port))
          yield {
            rule: this.rule,
            weight: 'must fix',
            subjects: [machine.id],
            sentence: `${machine.name}, port ${port.number}: ${why}`,
            evidence: [],
          };
    }
  },
  repairs(view, { subjects: [id] }) {
    const known = view.byId.get(id!);
    if (!known?.model) return [];
    const { machine, model } = known;
    const ports = machine.ports.filter(({ number }) => number <= model.ports).map((port) => fitPort(model, port));
    const plan = planPorts(machine, ports, `Bent the ports of ${machine.name} to what it can do`);
    return plan.ok ? [{ label: `Bend ${machine.name} to what it can do`, plan: plan.value }] : [];
  },
};
