/** What people come in at, in one file for the browser: a garden's frame and its light. */
export { GardenFrame } from './frame/GardenFrame.tsx'
export { LightScreen } from './light/LightScreen.tsx'
