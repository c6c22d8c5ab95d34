/** While somebody practises: how far, how long, and the way to say what is wrong. Screens that are looked at are noted. */
import { usePathname, useRouter } from 'expo-router';
import { useEffect, useState } from 'react';
import { View } from 'react-native';
import { screenName, tellLooked, usePractice } from '@/data/practice';
import { useShow } from '@/data/show';
import { Button } from '../Button';
import { Text } from '../Text';
import { stopwatch } from '../time';

/** Seconds since a moment, step by step. */
function useSince(began: number): number {
  const [now, setNow] = useState(Date.now);
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), 1000);
    return () => clearInterval(timer);
  }, []);
  return Math.max(0, Math.floor((now - began) / 1000));
}

export function PracticeBar() {
  const running = usePractice()?.running;
  return running ? <Running began={running.began} found={running.found.length} count={running.count} /> : null;
}

function Running({ began, found, count }: { began: number; found: number; count: number }) {
  const path = usePathname();
  const router = useRouter();
  const { records, loaded } = useShow();
  const seconds = useSince(began);
  const here = path === '/practise' || !loaded ? '' : screenName(path, window.location.search, records);
  useEffect(() => {
    if (here !== '') tellLooked(here);
  }, [here]);
  return (
    <View
      role="region"
      aria-label="Practice"
      className="flex-row items-center gap-2 border-t border-line bg-raised px-4"
    >
      <Text className="flex-1" numberOfLines={1}>
        {found} of {count} found, {stopwatch(seconds)}
      </Text>
      {path !== '/practise' && (
        <Button label="Say what is wrong" look="bare" onPress={() => router.navigate('/practise')} />
      )}
    </View>
  );
}
