import { createBrowserRouter, Navigate } from 'react-router'
import { GardenFrame } from './frame/GardenFrame.tsx'
import { RouteError } from './frame/RouteError.tsx'
import { Shell, StartPage, Waiting } from './frame/Shell.tsx'

/** Each screen is its own file for the browser to fetch when it is first opened. */
const screen = (load: () => Promise<{ Screen: React.ComponentType }>) => async () => ({
  Component: (await load()).Screen,
})

export const router = createBrowserRouter([
  {
    path: '/',
    element: <Shell />,
    hydrateFallbackElement: <Waiting />,
    errorElement: <RouteError />,
    children: [
      { index: true, element: <StartPage /> },
      { path: 'gardens/new', lazy: screen(() => import('./gardens/NewGardenScreen.tsx')) },
      {
        path: 'g/:gardenId',
        element: <GardenFrame />,
        errorElement: <RouteError />,
        children: [
          { index: true, element: <Navigate to="light" replace /> },
          { path: 'now', lazy: screen(() => import('./now/NowScreen.tsx')) },
          { path: 'walk', lazy: screen(() => import('./walk/WalkScreen.tsx')) },
          { path: 'walk/sheet', lazy: screen(() => import('./walk/SheetScreen.tsx')) },
          { path: 'walk/grid', lazy: screen(() => import('./walk/GridScreen.tsx')) },
          { path: 'plants/taxon/:botanical', lazy: screen(() => import('./plants/TaxonScreen.tsx')) },
          { path: 'light', lazy: screen(() => import('./light/LightScreen.tsx')) },
          { path: 'record', lazy: screen(() => import('./record/RecordScreen.tsx')) },
          { path: 'verdicts', lazy: screen(() => import('./verdicts/VerdictsScreen.tsx')) },
          { path: 'season', lazy: screen(() => import('./season/SeasonScreen.tsx')) },
          { path: 'season/day/:day', lazy: screen(() => import('./season/JobSheetScreen.tsx')) },
          { path: 'rules', lazy: screen(() => import('./season/RulesScreen.tsx')) },
          { path: 'plants', lazy: screen(() => import('./plants/PlantsScreen.tsx')) },
          { path: 'plants/:plantingId', lazy: screen(() => import('./plants/StoryScreen.tsx')) },
          { path: 'plan', lazy: screen(() => import('./draw/PlanScreen.tsx')) },
          { path: 'set-up', lazy: screen(() => import('./setup/SetupScreen.tsx')) },
        ],
      },
      { path: '*', element: <Navigate to="/" replace /> },
    ],
  },
])
