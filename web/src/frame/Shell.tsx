import { Navigate, Outlet, useLocation } from 'react-router'
import { useGardens, useSession } from '../api/session.ts'
import { FirstAccount } from '../gardens/FirstAccount.tsx'
import { SignIn } from '../gardens/SignIn.tsx'
import { Failed, Waiting } from './Answered.tsx'
import { useSending } from '../offline/useSync.ts'
import './frame.css'

/** Nobody sees a screen before the server has said who they are. */
export function Shell() {
  const asked = useSession()
  const { data: session } = asked
  useSending(session?.person?.id)
  if (!session)
    return asked.error ? <NoAnswer error={asked.error} onAgain={() => void asked.refetch()} /> : <Waiting />
  if (session.needsFirstAccount) return <FirstAccount />
  if (!session.person) return <SignIn people={session.demoPeople} />
  return <Outlet />
}

/** The garden last looked at, else the first, else the way to a first one. */
export function StartPage() {
  const asked = useGardens()
  const { data: gardens } = asked
  const { hash } = useLocation()
  if (!gardens)
    return asked.error ? <NoAnswer error={asked.error} onAgain={() => void asked.refetch()} /> : <Waiting />
  const last = localStorage.getItem(LAST_GARDEN)
  const garden = gardens.find((g) => g.id === last) ?? gardens[0]
  return <Navigate to={garden ? `/g/${garden.id}/light${hash}` : '/gardens/new'} replace />
}

export const LAST_GARDEN = 'border.lastGarden'

const NoAnswer = (failed: { error: unknown; onAgain: () => void }) => (
  <Whole title="Seasoned Border">
    <Failed {...failed} />
  </Whole>
)

/** A page of its own, outside the frame. */
export function Whole({ title, children }: { title: string; children: React.ReactNode }) {
  return (
    <main className="whole">
      <h1>{title}</h1>
      <div className="stack">{children}</div>
    </main>
  )
}
