/** DHCP where nobody in the show hands out addresses. */
import { changed } from '../../show/edit';
import type { Check, Finding } from './finding';
import { freeAddress } from './repairs';

export const dhcp: Check = {
  rule: 'DHCP without a server',
  *find({ machines, networks }): Generator<Finding> {
    if (networks.some((one) => one.dhcp)) return;
    for (const { machine } of machines)
      if (machine.interfaces.some(({ addresses }) => addresses.some(({ way }) => way === 'dhcp')))
        yield {
          rule: this.rule,
          weight: 'must fix',
          subjects: [machine.id],
          sentence: `${machine.name} waits for an address by DHCP, and no network of the show hands any out.`,
          evidence: [],
        };
  },
  repairs(view, { subjects: [id] }) {
    const known = view.byId.get(id!);
    const [network] = view.networks;
    if (!known || !network) return [];
    const { machine } = known;
    const address = freeAddress(view, network, machine);
    const fixed = address !== undefined && {
      label: `Set ${address} by hand`,
      plan: {
        sentence: `Gave ${machine.name} the fixed address ${address}`,
        changes: [
          changed('machine', machine, {
            ...machine,
            interfaces: machine.interfaces.map((one) => ({
              ...one,
              addresses: one.addresses.map((at) =>
                at.way === 'dhcp' ? { way: 'fixed' as const, address, prefix: network.prefix } : at,
              ),
            })),
          }),
        ],
        lines: [{ subject: machine.name, before: 'DHCP', after: address }],
      },
    };
    const serve = {
      label: `${network.name} has a server`,
      plan: {
        sentence: `Noted that ${network.name} has a DHCP server`,
        changes: [changed('network', network, { ...network, dhcp: true })],
        lines: [{ subject: `${network.name}, DHCP`, before: 'none', after: 'a server' }],
      },
    };
    return [...(fixed ? [fixed] : []), serve];
  },
};
