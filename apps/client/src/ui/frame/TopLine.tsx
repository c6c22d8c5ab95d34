/** The top line: the show, and the way to everything else. */
import { Link, usePathname, useRouter } from 'expo-router';
import ArrowLeft from 'lucide-react-native/icons/arrow-left';
import DoorOpen from 'lucide-react-native/icons/door-open';
import Search from 'lucide-react-native/icons/search';
import { Pressable, View } from 'react-native';
import { useShow } from '@/data/show';
import { Button } from '../Button';
import { Text } from '../Text';
import { useWide } from '../wide';
import { useCanGoBack } from './history';
import { PlaceFilter } from './PlaceFilter';
import { upFrom } from './upFrom';

export function TopLine({ onJump }: { onJump: () => void }) {
  const wide = useWide();
  const router = useRouter();
  const { records, loaded } = useShow();
  const name = records.show[0]?.name ?? (loaded ? 'Show without a name' : ' ');
  const canGoBack = useCanGoBack();
  const up = upFrom(usePathname());
  return (
    <View role="banner" className="h-14 flex-row items-center gap-1 border-b border-line bg-surface px-2">
      {(canGoBack || up) && (
        <Button
          label="Back"
          look="bare"
          icon={ArrowLeft}
          iconOnly
          onPress={() => (canGoBack ? history.back() : router.replace(up!))}
        />
      )}
      <Button label="How things stand" look="bare" icon={DoorOpen} iconOnly onPress={() => router.navigate('/')} />
      <Link href="/show" asChild aria-label={`${name}, this show and this computer`}>
        <Pressable className="h-12 flex-1 justify-center rounded px-2 active:bg-raised">
          <Text kind="strong" numberOfLines={1}>
            {name}
          </Text>
        </Pressable>
      </Link>
      <PlaceFilter />
      <Button label={wide ? 'Jump to…  /' : 'Jump'} look="plain" icon={Search} iconOnly={!wide} onPress={onJump} />
    </View>
  );
}
