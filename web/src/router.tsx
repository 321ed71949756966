import { Navigate, type RouteObject } from 'react-router'
import { RouteError } from './frame/RouteError.tsx'
import { Waiting } from './frame/Answered.tsx'
import { themed } from './frame/later.tsx'
import { Shell, StartPage } from './frame/Shell.tsx'

/** Each screen is its own file for the browser to fetch when it is first opened. */
const screen =
  <Name extends string>(name: Name, load: () => Promise<Record<Name, React.ComponentType>>) =>
  async () => ({ Component: await themed(async () => (await load())[name])() })

export const routes: RouteObject[] = [
  {
    // Whoever has a link looks without signing in.
    path: '/look/:token',
    lazy: async () => ({ Component: (await import('./look/LookScreen.tsx')).LookScreen }),
    hydrateFallbackElement: <Waiting />,
    errorElement: <RouteError />,
  },
  {
    path: '/',
    element: <Shell />,
    hydrateFallbackElement: <Waiting />,
    errorElement: <RouteError />,
    children: [
      { index: true, element: <StartPage /> },
      { path: 'gardens/new', lazy: screen('NewGardenScreen', () => import('./gardens/NewGardenScreen.tsx')) },
      {
        path: 'g/:gardenId',
        lazy: async () => ({ Component: (await import('./comeIn.ts')).GardenFrame }),
        errorElement: <RouteError />,
        children: [
          { index: true, element: <Navigate to="light" replace /> },
          { path: 'now', lazy: screen('NowScreen', () => import('./now/NowScreen.tsx')) },
          { path: 'walk', lazy: screen('WalkScreen', () => import('./walk/WalkScreen.tsx')) },
          { path: 'walk/sheet', lazy: screen('SheetScreen', () => import('./walk/SheetScreen.tsx')) },
          { path: 'walk/grid', lazy: screen('GridScreen', () => import('./walk/GridScreen.tsx')) },
          {
            path: 'plants/taxon/:botanical',
            lazy: screen('TaxonScreen', () => import('./plants/TaxonScreen.tsx')),
          },
          {
            path: 'light',
            // Where people come in: it does without the component library until a panel is opened.
            lazy: async () => ({ Component: (await import('./comeIn.ts')).LightScreen }),
          },
          { path: 'record', lazy: screen('RecordScreen', () => import('./record/RecordScreen.tsx')) },
          { path: 'verdicts', lazy: screen('VerdictsScreen', () => import('./verdicts/VerdictsScreen.tsx')) },
          { path: 'rework', lazy: screen('ReworkScreen', () => import('./rework/ReworkScreen.tsx')) },
          {
            path: 'rework/:reworkId',
            lazy: screen('SchemeScreen', () => import('./rework/SchemeScreen.tsx')),
          },
          {
            path: 'rework/:reworkId/sheet',
            lazy: screen('PlantingSheetScreen', () => import('./rework/PlantingSheetScreen.tsx')),
          },
          { path: 'pots', lazy: screen('PotsScreen', () => import('./pots/PotsScreen.tsx')) },
          { path: 'season', lazy: screen('SeasonScreen', () => import('./season/SeasonScreen.tsx')) },
          {
            path: 'season/day/:day',
            lazy: screen('JobSheetScreen', () => import('./season/JobSheetScreen.tsx')),
          },
          { path: 'rules', lazy: screen('RulesScreen', () => import('./season/RulesScreen.tsx')) },
          { path: 'plants', lazy: screen('PlantsScreen', () => import('./plants/PlantsScreen.tsx')) },
          { path: 'plants/labels', lazy: screen('LabelsScreen', () => import('./plants/LabelsScreen.tsx')) },
          {
            path: 'plants/:plantingId',
            lazy: screen('StoryScreen', () => import('./plants/StoryScreen.tsx')),
          },
          { path: 'plan', lazy: screen('PlanScreen', () => import('./draw/PlanScreen.tsx')) },
          {
            path: 'plan/pictures',
            lazy: screen('PicturesScreen', () => import('./pictures/PicturesScreen.tsx')),
          },
          { path: 'plan/tapes', lazy: screen('TapesScreen', () => import('./survey/TapesScreen.tsx')) },
          { path: 'set-up', lazy: screen('SetupScreen', () => import('./setup/SetupScreen.tsx')) },
        ],
      },
      { path: '*', element: <Navigate to="/" replace /> },
    ],
  },
]
