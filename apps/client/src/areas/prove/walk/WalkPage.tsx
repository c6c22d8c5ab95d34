/** One walk: as it stands, and walking it. */
import { useLocalSearchParams } from 'expo-router';
import { useState } from 'react';
import { useShow } from '@/data/show';
import { Missing } from '@/ui';
import { StandingWalk } from './StandingWalk';
import { WalkNow } from './WalkNow';

export function WalkPage() {
  const { walk: id } = useLocalSearchParams<{ walk: string }>();
  const { records, loaded } = useShow();
  const [walking, setWalking] = useState(false);
  const [from, setFrom] = useState('');
  const walk = records.walk.find((one) => one.id === id);
  if (!walk) return <Missing loaded={loaded} what="This walk" list="/prove/walks" act="All walks" />;
  if (walking) return <WalkNow key={walk.id} walk={walk} first={from} onStop={() => setWalking(false)} />;
  return (
    <StandingWalk
      walk={walk}
      onWalk={(key) => {
        setFrom(key);
        setWalking(true);
      }}
    />
  );
}
