import { Spin } from 'antd'
import { Navigate, Outlet, useLocation } from 'react-router'
import { errorText, useGardens, useSession } from '../api/queries.ts'
import { FirstAccount } from '../gardens/FirstAccount.tsx'
import { SignIn } from '../gardens/SignIn.tsx'
import { useSending } from '../offline/useSync.ts'
import './frame.css'

/** Nobody sees a screen before the server has said who they are. */
export function Shell() {
  const { data: session, error } = useSession()
  useSending(session?.person?.id)
  if (error) return <Whole title="Seasoned Border">{errorText(error)}</Whole>
  if (!session) return <Waiting />
  if (session.needsFirstAccount) return <FirstAccount />
  if (!session.person) return <SignIn people={session.demoPeople} />
  return <Outlet />
}

/** The garden last looked at, else the first, else the way to a first one. */
export function StartPage() {
  const { data: gardens, error } = useGardens()
  const { hash } = useLocation()
  if (error) return <Whole title="Seasoned Border">{errorText(error)}</Whole>
  if (!gardens) return <Waiting />
  const last = localStorage.getItem(LAST_GARDEN)
  const garden = gardens.find((g) => g.id === last) ?? gardens[0]
  return <Navigate to={garden ? `/g/${garden.id}/light${hash}` : '/gardens/new'} replace />
}

export const LAST_GARDEN = 'border.lastGarden'

export function Waiting() {
  return (
    <div className="waiting" role="status">
      <Spin />
      <span className="visually-hidden">Loading</span>
    </div>
  )
}

/** A page of its own, outside the frame. */
export function Whole({ title, children }: { title: string; children: React.ReactNode }) {
  return (
    <main className="whole">
      <h1>{title}</h1>
      <div className="stack">{children}</div>
    </main>
  )
}
