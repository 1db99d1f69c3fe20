import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import { Suspense, useState } from 'react';
import { Link, Route, Routes, useLocation } from 'react-router';

import { SignInAgain } from '../features/session/SignInAgain';
import { SignInPage } from '../features/session/SignInPage';
import { setConcepts } from '../shared/lib/concepts';
import { setManner } from '../shared/lib/format';
import { useSession } from '../features/session/useSession';
import type { Session } from '../shared/api';
import { EmptyState } from '../shared/ui/EmptyState';
import {
  BenchPage,
  NamePage,
  PhrasesRoom,
  ReadingPage,
  ShortlistRoom,
  ComparePage,
  PlanPage,
  PlanPaper,
  VettingPage,
  VettingPaper,
  HuntPage,
  ShortNamesPage,
  BasketPage,
  ContactsPage,
  ZonePage,
  OwnedPage,
  OrdersPage,
  OrderPage,
  ReceiptPage,
  WatchingPage,
  SellersPage,
  DuelsPage,
  SharingPage,
  SharedPage,
  ProjectsPage,
  WordmarkPage,
  PrintPage,
  SettingsRoom,
  ListPage,
  ExtensionsPage,
  AboutPage,
  MeasuresPage,
} from './pages';
import { useConcepts, useStart } from './useStart';
import { Mishap } from './Mishap';
import { ProjectRoom } from './ProjectRoom';
import { Shell } from './Shell';
import { Titled } from './Titled';
import { LoadFailed } from '../shared/ui/LoadFailed';
import { t } from '../shared/texts';

type Person = NonNullable<Session['person']>;

const Nowhere = () => (
  <EmptyState
    title={t('There is nothing at this address')}
    action={
      <Button component={Link} to="/" variant="outlined">
        {t('To the projects')}
      </Button>
    }>
    {t('It may have been removed, or belong to someone else.')}
  </EmptyState>
);

/** What stands at each address, once it is known what there is; a link somebody shared needs no account. */
export function AppRoutes() {
  const { pathname } = useLocation();
  const { data, error, refetch } = useConcepts();
  if (!data) {
    if (!error) return <LinearProgress aria-label={t('Loading')} />;
    return <LoadFailed title={t('Vine Tag cannot be reached')} error={error} onRetry={refetch} />;
  }
  setConcepts(data);
  return (
    <Mishap at={pathname}>
      <Suspense fallback={<LinearProgress aria-label={t('Loading')} />}>
        <Routes>
          <Route
            path="s/:token"
            element={
              <Titled word={t('Names to judge')}>
                <SharedPage />
              </Titled>
            }
          />
          <Route path="*" element={<OwnRoutes />} />
        </Routes>
      </Suspense>
    </Mishap>
  );
}

/** The addresses of who is signed in. */
function OwnRoutes() {
  const { session } = useSession();
  const { left, leave, prepare } = useStart();
  const [here, setHere] = useState<Person | null>(null);
  if (session.isPending) return <LinearProgress aria-label={t('Loading')} />;
  if (session.isError) {
    return <LoadFailed title={t('Vine Tag cannot be reached')} error={session.error} onRetry={session.refetch} />;
  }
  const { person: now, demo } = session.data;
  if (now && now !== here) setHere(now);
  const person = now ?? here;
  // Whoever signed out leaves; a session that ended by itself leaves the page as it is.
  if (!person || (!now && left))
    return (
      <Titled word={t('Sign in')}>
        <SignInPage />
      </Titled>
    );
  const { locale, currency, rate = null } = person.preferences;
  setManner({ locale, currency, rate });
  return (
    <>
      {!now && <SignInAgain username={person.username} asDemo={demo && person.demo} onLeave={() => leave()} />}
      <Routes key={`${locale}${currency}${rate ?? ''}`}>
        <Route element={<Shell person={person.username} liked={person.preferences.theme} />}>
          <Route
            index
            element={
              <Titled word={t('Projects')}>
                <ProjectsPage onNear={(id) => prepare(id)} />
              </Titled>
            }
          />
          <Route path="projects/:id" element={<ProjectRoom missing={<Nowhere />} />}>
            <Route
              index
              element={
                <Titled word={t('Bench')}>
                  <BenchPage />
                </Titled>
              }
            />
            <Route
              path="phrases"
              element={
                <Titled word={t('Phrases')}>
                  <PhrasesRoom />
                </Titled>
              }
            />
            <Route
              path="names/:label"
              element={
                <Titled>
                  <NamePage />
                </Titled>
              }
            />
            <Route
              path="read"
              element={
                <Titled word={t('One by one')}>
                  <ReadingPage />
                </Titled>
              }
            />
            <Route
              path="shortlist"
              element={
                <Titled word={t('Shortlist')}>
                  <ShortlistRoom />
                </Titled>
              }
            />
            <Route
              path="hunt"
              element={
                <Titled word={t('Hunt')}>
                  <HuntPage />
                </Titled>
              }
            />
            <Route
              path="short"
              element={
                <Titled word={t('Short names')}>
                  <ShortNamesPage />
                </Titled>
              }
            />
            <Route
              path="vetting"
              element={
                <Titled word={t('Vetting')}>
                  <VettingPage />
                </Titled>
              }
            />
            <Route
              path="vetting/print"
              element={
                <Titled word={t('Vetting')}>
                  <VettingPaper />
                </Titled>
              }
            />
            <Route
              path="plan"
              element={
                <Titled word={t('Plan')}>
                  <PlanPage />
                </Titled>
              }
            />
            <Route
              path="plan/print"
              element={
                <Titled word={t('Plan')}>
                  <PlanPaper />
                </Titled>
              }
            />
            <Route
              path="compare"
              element={
                <Titled word={t('Side by side')}>
                  <ComparePage />
                </Titled>
              }
            />
            <Route
              path="duels"
              element={
                <Titled word={t('Duels')}>
                  <DuelsPage />
                </Titled>
              }
            />
            <Route
              path="share"
              element={
                <Titled word={t('Sharing')}>
                  <SharingPage />
                </Titled>
              }
            />
            <Route
              path="wordmark"
              element={
                <Titled word={t('Wordmark')}>
                  <WordmarkPage />
                </Titled>
              }
            />
            <Route
              path="print"
              element={
                <Titled word={t('Print')}>
                  <PrintPage />
                </Titled>
              }
            />
            <Route
              path="list"
              element={
                <Titled word={t('Check a list')}>
                  <ListPage />
                </Titled>
              }
            />
          </Route>
          <Route
            path="extensions"
            element={
              <Titled word={t('Extensions')}>
                <ExtensionsPage />
              </Titled>
            }
          />
          <Route
            path="basket"
            element={
              <Titled word={t('Basket')}>
                <BasketPage />
              </Titled>
            }
          />
          <Route
            path="contacts"
            element={
              <Titled word={t('Contacts')}>
                <ContactsPage />
              </Titled>
            }
          />
          <Route
            path="owned"
            element={
              <Titled word={t('My names')}>
                <OwnedPage />
              </Titled>
            }
          />
          <Route
            path="owned/:id/zone"
            element={
              <Titled word={t('Connect a name')}>
                <ZonePage />
              </Titled>
            }
          />
          <Route
            path="orders"
            element={
              <Titled word={t('Orders')}>
                <OrdersPage />
              </Titled>
            }
          />
          <Route
            path="orders/:order"
            element={
              <Titled word={t('Order')}>
                <OrderPage />
              </Titled>
            }
          />
          <Route
            path="orders/:order/receipts/:kind"
            element={
              <Titled word={t('Receipt')}>
                <ReceiptPage />
              </Titled>
            }
          />
          <Route
            path="watching"
            element={
              <Titled word={t('Watching')}>
                <WatchingPage />
              </Titled>
            }
          />
          <Route
            path="sellers"
            element={
              <Titled word={t('Sellers')}>
                <SellersPage />
              </Titled>
            }
          />
          <Route
            path="settings"
            element={
              <Titled word={t('Settings')}>
                <SettingsRoom />
              </Titled>
            }
          />
          <Route
            path="about"
            element={
              <Titled word={t('About')}>
                <AboutPage />
              </Titled>
            }
          />
          <Route
            path="measures"
            element={
              <Titled word={t('Grades')}>
                <MeasuresPage />
              </Titled>
            }
          />
          <Route path="*" element={<Nowhere />} />
        </Route>
      </Routes>
    </>
  );
}
