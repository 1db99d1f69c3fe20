import { lazy } from 'react';

import { loadBench } from './prefetch';

// What is not needed to begin with is loaded when one goes there.
export const BenchPage = lazy(async () => ({ default: (await loadBench()).BenchPage }));
export const NamePage = lazy(async () => ({ default: (await import('./NamePage')).NamePage }));
export const PhrasesRoom = lazy(async () => ({ default: (await import('./PhrasesRoom')).PhrasesRoom }));
export const ReadingPage = lazy(async () => ({ default: (await import('./ReadingPage')).ReadingPage }));
export const ShortlistRoom = lazy(async () => ({ default: (await import('./ShortlistRoom')).ShortlistRoom }));
export const ComparePage = lazy(async () => ({
  default: (await import('../features/shortlist/ComparePage')).ComparePage,
}));
export const PlanPage = lazy(async () => ({ default: (await import('../features/plan/PlanPage')).PlanPage }));
export const PlanPaper = lazy(async () => ({ default: (await import('../features/plan/PlanPaper')).PlanPaper }));
export const VettingPage = lazy(async () => ({
  default: (await import('../features/vetting/VettingPage')).VettingPage,
}));
export const VettingPaper = lazy(async () => ({
  default: (await import('../features/vetting/VettingPaper')).VettingPaper,
}));
export const HuntPage = lazy(async () => ({ default: (await import('../features/hunt/HuntPage')).HuntPage }));
export const ShortNamesPage = lazy(async () => ({ default: (await import('./ShortNamesPage')).ShortNamesPage }));
export const BasketPage = lazy(async () => ({ default: (await import('../features/basket/BasketPage')).BasketPage }));
export const ContactsPage = lazy(async () => ({
  default: (await import('../features/contacts/ContactsPage')).ContactsPage,
}));
export const ZonePage = lazy(async () => ({ default: (await import('../features/zone/ZonePage')).ZonePage }));
export const OwnedPage = lazy(async () => ({ default: (await import('../features/owned/OwnedPage')).OwnedPage }));
export const OrdersPage = lazy(async () => ({ default: (await import('../features/orders/OrdersPage')).OrdersPage }));
export const OrderPage = lazy(async () => ({ default: (await import('../features/orders/OrdersPage')).OrderPage }));
export const ReceiptPage = lazy(async () => ({
  default: (await import('../features/orders/ReceiptPage')).ReceiptPage,
}));
export const WatchingPage = lazy(async () => ({
  default: (await import('../features/watching/WatchingPage')).WatchingPage,
}));
export const SellersPage = lazy(async () => ({
  default: (await import('../features/sellers/SellersPage')).SellersPage,
}));
export const DuelsPage = lazy(async () => ({
  default: (await import('../features/shortlist/DuelsPage')).DuelsPage,
}));
export const SharingPage = lazy(async () => ({
  default: (await import('../features/sharing/SharingPage')).SharingPage,
}));
export const SharedPage = lazy(async () => ({ default: (await import('../features/guest/SharedPage')).SharedPage }));
export const ProjectsPage = lazy(async () => ({
  default: (await import('../features/projects/ProjectsPage')).ProjectsPage,
}));
export const WordmarkPage = lazy(async () => ({
  default: (await import('../features/wordmark/WordmarkPage')).WordmarkPage,
}));
export const PrintPage = lazy(async () => ({ default: (await import('./PrintPage')).PrintPage }));
export const SettingsRoom = lazy(async () => ({ default: (await import('./SettingsRoom')).SettingsRoom }));
export const ListPage = lazy(async () => ({ default: (await import('./ListPage')).ListPage }));
export const ExtensionsPage = lazy(async () => ({
  default: (await import('../features/extensions/ExtensionsPage')).ExtensionsPage,
}));
export const AboutPage = lazy(async () => ({ default: (await import('./AboutPage')).AboutPage }));
export const MeasuresPage = lazy(async () => ({ default: (await import('./MeasuresPage')).MeasuresPage }));
