import { frostIsGuessed } from '@border/core'
import { Link } from 'react-router'
import { useGardenContext } from './gardenContext.ts'

/** Said wherever dates or figures hang on weather that nobody measured. Nothing where it was. */
export function SimulatedNote({ what = 'Dates' }: { what?: string }) {
  const { view, isHead } = useGardenContext()
  const { climate } = view
  if (!climate?.isSimulated) return null
  return (
    <p className="simulated" role="note">
      {what} here hang on simulated weather, made up from the usual years of the towns about it: nobody
      measured it. {frostIsGuessed(climate) && 'Work that frost can ruin is marked unsure. '}
      {isHead && <Link to="../set-up#climate">Say what you know of your climate</Link>}
    </p>
  )
}
