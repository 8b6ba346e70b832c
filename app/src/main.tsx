import { QueryClientProvider } from '@tanstack/react-query';
import { setNonce } from 'get-nonce';
import { lazy, StrictMode, Suspense } from 'react';
import { createRoot } from 'react-dom/client';
import { createBrowserRouter, Navigate } from 'react-router';
import { RouterProvider } from 'react-router/dom';
import { queryClient } from './data/services.ts';
import { applySheetTone } from './frame/sheetTone.ts';
import { keepPage } from './frame/keptPage.ts';
import { RouteProblem } from './frame/RouteProblem.tsx';
import { Home } from './home/Home.tsx';
import './styles/app.css';

// The server puts a fresh nonce into the page; a dialog's scroll lock writes a style sheet and must carry it.
setNonce(document.querySelector<HTMLMetaElement>('meta[name="csp-nonce"]')?.content ?? '');
applySheetTone();
keepPage();

const GardenGate = lazy(() => import('./home/GardenGate.tsx'));
const OpenSample = lazy(() => import('./home/OpenSample.tsx'));
const MendFile = lazy(() => import('./home/MendFile.tsx'));
const OpenBackup = lazy(() => import('./home/OpenBackup.tsx'));
const PhoneArrival = lazy(() => import('./home/PhoneArrival.tsx'));
const StartGarden = lazy(() => import('./home/StartGarden.tsx'));
const PlanParts = lazy(() => import('./stations/plan/parts/PartsSheet.tsx'));
const PlanWiring = lazy(() => import('./stations/plan/wiring/WiringSheet.tsx'));
const Sketch = lazy(() => import('./stations/rules/sketch/SketchSheet.tsx'));
const Readout = lazy(() => import('./stations/bench/readout/ReadoutSheet.tsx'));
const Calibrate = lazy(() => import('./stations/bench/calibrate/CalibrateSheet.tsx'));
const Dose = lazy(() => import('./stations/bench/dose/DoseSheet.tsx'));
const Limits = lazy(() => import('./stations/rules/limits/LimitsSheet.tsx'));
const Today = lazy(() => import('./stations/season/today/TodaySheet.tsx'));
const Log = lazy(() => import('./stations/season/log/LogSheet.tsx'));

const router = createBrowserRouter([
  { path: '/', element: <Home />, errorElement: <RouteProblem /> },
  { path: '/sample', element: <OpenSample />, errorElement: <RouteProblem /> },
  { path: '/new', element: <StartGarden />, errorElement: <RouteProblem /> },
  { path: '/mend', element: <MendFile />, errorElement: <RouteProblem /> },
  { path: '/phone', element: <PhoneArrival />, errorElement: <RouteProblem /> },
  { path: '/open', element: <OpenBackup />, errorElement: <RouteProblem /> },
  {
    path: '/g/:gardenId',
    element: <GardenGate />,
    errorElement: <RouteProblem />,
    children: [
      { index: true, element: <Navigate to="bench/readout" replace /> },
      { path: 'plan/parts', element: <PlanParts /> },
      { path: 'plan/wiring', element: <PlanWiring /> },
      { path: 'bench/readout', element: <Readout /> },
      { path: 'bench/calibrate', element: <Calibrate /> },
      { path: 'bench/dose', element: <Dose /> },
      { path: 'rules/limits', element: <Limits /> },
      { path: 'rules/sketch', element: <Sketch /> },
      { path: 'season/today', element: <Today /> },
      { path: 'season/log', element: <Log /> },
    ],
  },
  { path: '*', element: <RouteProblem /> },
]);

const root = document.getElementById('root');
if (!root) throw new Error('index.html has no #root');
createRoot(root).render(
  <StrictMode>
    <QueryClientProvider client={queryClient}>
      <Suspense>
        {/* Not as a transition: readings that keep coming would hold it up, and for as long the sheet, the rail and the labels would not agree on where one is. */}
        <RouterProvider router={router} useTransitions={false} />
      </Suspense>
    </QueryClientProvider>
  </StrictMode>,
);
