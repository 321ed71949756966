import { roleWords, type SessionInfo } from '@border/contract'
import { useChangeSession } from '../api/session.ts'
import { Failed } from '../frame/Answered.tsx'
import { Button } from '../frame/Button.tsx'
import { Whole } from '../frame/Whole.tsx'
import { AccountForm, emailField } from './AccountForm.tsx'

/** Sign in by address and password, or as one of the demo's people in one click. */
export function SignIn({ people }: { people: SessionInfo['demoPeople'] }) {
  const change = useChangeSession()
  return (
    <Whole title="Seasoned Border">
      <p className="soft">What to do next, where and when, for beds and pots that already exist.</p>
      {change.error && <Failed error={change.error} />}
      {people.length > 0 ? (
        <section className="stack">
          <h2>Look round the demo as</h2>
          {people.map((p) => (
            <Button
              key={p.id}
              size="large"
              block
              disabled={change.isPending}
              onClick={() => change.mutate({ name: 'enterDemo', body: { personId: p.id } })}
            >
              {p.name}, {roleWords[p.role]}
            </Button>
          ))}
          <small>Made-up people in a made-up town. Nothing here is anybody’s real garden.</small>
        </section>
      ) : (
        <AccountForm
          fields={fields}
          send="Sign in"
          sending={change.isPending}
          onSend={(body) => change.mutate({ name: 'signIn', body })}
        />
      )}
    </Whole>
  )
}

const fields = [
  emailField,
  {
    name: 'password',
    label: 'Password',
    asks: 'Give your password',
    type: 'password',
    autoComplete: 'current-password',
  },
] as const
