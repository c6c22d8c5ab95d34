/** The router as a test plays it: where the page stands, and where it was sent. */
import { cloneElement, isValidElement, type ReactElement, type ReactNode } from 'react';

export const routed = {
  path: '/',
  params: {} as Record<string, string>,
  /** Everywhere that the page was sent to, oldest first */
  sent: [] as string[],
};

export const usePathname = () => routed.path;
export const useLocalSearchParams = () => routed.params;
export const useGlobalSearchParams = useLocalSearchParams;
export const useRouter = () => ({
  navigate: (to: string) => void routed.sent.push(to),
  push: (to: string) => void routed.sent.push(to),
  replace: (to: string) => void routed.sent.push(to),
  canGoBack: () => false,
  setParams: (params: Record<string, string>) => void Object.assign(routed.params, params),
});
export const useNavigation = () => ({ getState: () => undefined });
export const useIsFocused = () => true;

interface LinkProps {
  href: string;
  asChild?: boolean;
  children?: ReactNode;
  [other: string]: unknown;
}

/** A link that can be found by its role and says where it leads. */
export function Link({ href, asChild, children, ...rest }: LinkProps): ReactElement {
  if (asChild && isValidElement<Record<string, unknown>>(children)) return cloneElement(children, { href, ...rest });
  return <a href={href}>{children}</a>;
}
