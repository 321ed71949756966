import { Navigate, Outlet, useLocation } from 'react-router'
import { useGardens, useSession } from '../api/session.ts'
import { useSending } from '../offline/useSync.ts'
import { SignIn } from '../gardens/SignIn.tsx'
import { InOwnUnits } from '../units/InOwnUnits.tsx'
import { Answered } from './Answered.tsx'
import './frame.css'
import { LAST_GARDEN } from './lastGarden.ts'
import { later } from './later.tsx'
import { Whole } from './Whole.tsx'

const FirstAccount = later(async () => (await import('../gardens/FirstAccount.tsx')).FirstAccount)

/** Nobody sees a screen before the server has said who they are. */
export function Shell() {
  const asked = useSession()
  useSending(asked.data?.person?.id)
  return (
    <Answered of={[asked]} around={onItsOwn}>
      {(session) =>
        session.needsFirstAccount ? (
          <FirstAccount />
        ) : session.person ? (
          <InOwnUnits of={session.person.preferences}>
            <Outlet />
          </InOwnUnits>
        ) : (
          <SignIn people={session.demoPeople} />
        )
      }
    </Answered>
  )
}

/** The garden last looked at, else the first, else the way to a first one. */
export function StartPage() {
  const { hash } = useLocation()
  const last = localStorage.getItem(LAST_GARDEN)
  return (
    <Answered of={[useGardens()]} around={onItsOwn}>
      {(gardens) => {
        const garden = gardens.find((g) => g.id === last) ?? gardens[0]
        return <Navigate to={garden ? `/g/${garden.id}/light${hash}` : '/gardens/new'} replace />
      }}
    </Answered>
  )
}

const onItsOwn = (failed: React.ReactNode) => <Whole title="Seasoned Border">{failed}</Whole>
