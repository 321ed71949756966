import {
  gardenField,
  lightDays,
  measuringWorth,
  LightStage,
  plotsOf,
  pointSky,
  potHours,
  type Feature,
  type GardenField,
  type MeasuringWorth,
  type Ground,
  type LightPeriod,
  type LightPoint,
  type LitPlace,
  type Obstruction,
  type Plot,
  type PointSky,
  type Scene,
} from '@border/core'
import { expose } from 'comlink'

/** What a worker keeps of a scene in which one obstruction is being changed. */
interface Held {
  scene: Scene
  places: readonly LitPlace[]
  period: LightPeriod
  obstructionId: string
  plots: Plot[]
  stages: LightStage[]
}
let held: Held | undefined

/** Cells times positions of the sun that a stage may keep: two bytes each. */
const MOST_KEPT = 50_000_000

const api = {
  field: (scene: Scene, places: readonly LitPlace[], period: LightPeriod, cellM: number): GardenField =>
    gardenField(scene, places, period, plotsOf(places, cellM)),

  worth: (
    scene: Scene,
    features: readonly Feature[],
    plantings: readonly { id: string; point: LightPoint }[],
    on: string,
  ): MeasuringWorth[] => measuringWorth(scene, features, plantings, on),

  sky: (scene: Scene, point: LightPoint, on: string, ground: Ground | undefined): PointSky =>
    pointSky(scene, point, on, ground),

  /** Makes one obstruction ready to be changed, on cells as fine as memory allows. */
  hold(scene: Scene, places: readonly LitPlace[], period: LightPeriod, obstructionId: string): void {
    const positions = lightDays(scene, period).reduce((sum, d) => sum + d.directions.length, 0)
    let cellM = 0.25
    let plots = plotsOf(places, cellM)
    while (plots.reduce((sum, p) => sum + p.raster.count, 0) * positions > MOST_KEPT)
      plots = plotsOf(places, (cellM *= 1.5))
    held = {
      scene,
      places,
      period,
      obstructionId,
      plots,
      stages: plots.map((p) => new LightStage(scene, p.raster, period, obstructionId, p.ground)),
    }
  },

  /** The field with the held obstruction as given; undefined when it is not there. */
  supposition(changed: Obstruction | undefined): GardenField {
    if (!held) throw new Error('No obstruction is held')
    const { scene, places, period, obstructionId, plots, stages } = held
    const others = scene.obstructions.filter((o) => o.id !== obstructionId)
    const supposedScene = { ...scene, obstructions: changed ? [...others, changed] : others }
    return {
      plots: plots.map((plot, i) => ({ ...plot, hours: stages[i]!.withChanged(changed) })),
      pots: potHours(supposedScene, places, period),
    }
  },
}

export type LightWorker = typeof api
expose(api)
