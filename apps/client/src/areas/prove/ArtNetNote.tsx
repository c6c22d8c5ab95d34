/** What Art-Net cannot do when a universe is taken, said where it is taken. */
import { Text } from '@/ui';
import { useLive } from '@/data/live';

export function ArtNetNote({ universeKey }: { universeKey: number }) {
  const live = useLive();
  const targets = live?.output.targets[universeKey] ?? [];
  const others =
    live?.universes.find((one) => one.key === universeKey)?.streams.filter((stream) => !stream.own && !stream.lost) ??
    [];
  const nodes = live?.nodes.filter((node) => targets.includes(node.address)).map(({ shortName }) => shortName) ?? [];
  const where =
    nodes.length > 0
      ? `Goes to ${nodes.join(', ')}.`
      : 'No node that answers lists this universe, so nothing is sent to one. Look under Wire, or allow broadcast in the settings.';
  return (
    <Text kind="small">
      {where}{' '}
      {others.length > 0 &&
        `Art-Net has no priority: the other slots of the universe repeat what ${others.map(({ name, address }) => name || address).join(' and ')} sends, and a node that merges by the highest level lets you raise a slot but not lower it.`}
    </Text>
  );
}
