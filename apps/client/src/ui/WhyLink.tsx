/** The way to Why? of anything. */
import { useRouter } from 'expo-router';
import MessageCircleQuestion from 'lucide-react-native/icons/message-circle-question-mark';
import { Button } from './Button';

/** `about` names it for who listens rather than looks. */
export function WhyLink({ href, about, grow = false }: { href: `/why?${string}`; about: string; grow?: boolean }) {
  const router = useRouter();
  return (
    <Button
      label={`Why? ${about}`}
      short="Why?"
      icon={MessageCircleQuestion}
      grow={grow}
      onPress={() => router.navigate(href)}
    />
  );
}
