import { useChangeSession } from '../api/session.ts'
import { Failed } from '../frame/Answered.tsx'
import { Whole } from '../frame/Whole.tsx'
import { AccountForm, emailField } from './AccountForm.tsx'

/** An empty practice asks for the person who will lead it. */
export function FirstAccount() {
  const change = useChangeSession()
  return (
    <Whole title="Welcome to Seasoned Border">
      <p>
        Nobody has an account here yet. Make the first one; it leads the practice and can add gardens and
        people.
      </p>
      {change.error && <Failed error={change.error} />}
      <AccountForm
        fields={fields}
        send="Make the account"
        sending={change.isPending}
        onSend={(body) => change.mutate({ name: 'firstAccount', body })}
      />
    </Whole>
  )
}

const fields = [
  {
    name: 'practiceName',
    label: 'Practice',
    asks: 'Name your practice',
    hint: 'Your own name will do.',
    most: 120,
  },
  { name: 'name', label: 'Your name', asks: 'Give your name', autoComplete: 'name', most: 120 },
  emailField,
  {
    name: 'password',
    label: 'Password',
    asks: 'At least 10 characters',
    least: 10,
    type: 'password',
    autoComplete: 'new-password',
  },
] as const
