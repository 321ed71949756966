import type { ReworkView, SchemeView } from '@border/contract'
import { Link, useLocation } from 'react-router'
import { searchWith } from '../frame/address.ts'
import { useGardenContext } from '../frame/gardenContext.ts'
import { useReworks } from './queries.ts'

function SchemeLink({ rework, scheme }: { rework: ReworkView; scheme: SchemeView }) {
  const { search } = useLocation()
  const of = searchWith(search, { scheme: scheme.id, part: 'steps', job: undefined, planting: undefined })
  return <Link to={{ pathname: `../rework/${rework.id}`, search: of }}>{scheme.said.name}</Link>
}

/** The first scheme of a garden of which something holds. */
function useSchemeOf(
  is: (scheme: SchemeView) => boolean,
): { rework: ReworkView; scheme: SchemeView } | undefined {
  const { view } = useGardenContext()
  const { data: reworks = [] } = useReworks(view.garden.id)
  return reworks.flatMap((rework) => rework.schemes.filter(is).map((scheme) => ({ rework, scheme })))[0]
}

/** The scheme that a job is a step of, with the way there. */
export function StepOf({ schemeId }: { schemeId: string }) {
  const found = useSchemeOf((s) => s.id === schemeId)
  return found ? (
    <p className="soft">
      A step of <SchemeLink {...found} />
    </p>
  ) : null
}

/** That a planting leaves or is divided by a scheme that is being carried out, before another word is said of it. */
export function HandledBy({ plantingId }: { plantingId: string }) {
  const isOf = (s: SchemeView) => s.said.leaving.some((l) => l.plantingId === plantingId)
  const found = useSchemeOf((s) => s.accepted !== null && s.steps.open > 0 && isOf(s))
  if (!found) return null
  const how = found.scheme.said.leaving.find((l) => l.plantingId === plantingId)!.how
  return (
    <p role="note">
      It {how === 'divides' ? 'is divided' : 'leaves'} by <SchemeLink {...found} />, which is being carried
      out. Another word here takes its steps out of the season.
    </p>
  )
}
