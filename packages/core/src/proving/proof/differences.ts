import type { ProofContent } from './said';

/** What a later one says otherwise than one that was signed before. */
export function differencesOfProofs(before: ProofContent, now: ProofContent): string[] {
  const lampsIn = ({ places }: ProofContent) =>
    new Map(places.flatMap(({ lamps }) => lamps).map((one) => [`${one.number} ${one.name}`, one]));
  const [was, is] = [lampsIn(before), lampsIn(now)];
  const lamps = [...is].flatMap(([name, lamp]) => {
    const other = was.get(name);
    if (!other) return [`${name} is new: ${lamp.state}.`];
    const parts = [
      other.state === lamp.state ? '' : `${other.state} then, ${lamp.state} now`,
      other.address === lamp.address ? '' : `${other.address} then, ${lamp.address} now`,
      other.mode === lamp.mode ? '' : `${other.mode} then, ${lamp.mode} now`,
      other.changed.length === 0 && lamp.changed.length > 0 ? `changed since: ${lamp.changed.join('; ')}` : '',
    ].filter(Boolean);
    return parts.length > 0 ? [`${name}: ${parts.join('; ')}.`] : [];
  });
  const gone = [...was.keys()].filter((name) => !is.has(name)).map((name) => `${name} is not in the show any more.`);
  const nodesWere = new Map(before.nodes.map((one) => [one.name, JSON.stringify(one)]));
  const nodes = now.nodes
    .filter((one) => nodesWere.has(one.name) && nodesWere.get(one.name) !== JSON.stringify(one))
    .map(({ name }) => `${name} stands otherwise than then.`);
  return [...lamps, ...gone, ...nodes];
}
