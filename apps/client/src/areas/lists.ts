/** Lists beside which stands what is chosen in them: each comes when its area is first opened. */
import { lazyPart } from '@/ui';

export const LampList = lazyPart(() => import('./rig/LampList').then((part) => part.LampList));
export const MachineList = lazyPart(() => import('./wire/MachineList').then((part) => part.MachineList));
export const UniverseList = lazyPart(() => import('./listen/UniverseList').then((part) => part.UniverseList));
export const LinksPage = lazyPart(() => import('./flow/links/LinksPage').then((part) => part.LinksPage));
export const RoutesPage = lazyPart(() => import('./flow/routes/RoutesPage').then((part) => part.RoutesPage));
export const SendersPage = lazyPart(() => import('./flow/senders/SendersPage').then((part) => part.SendersPage));
