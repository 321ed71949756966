import { useState } from 'react'
import { Button } from '../frame/Button.tsx'
import './account.css'

interface Field<Name extends string> {
  name: Name
  label: string
  /** Said where it is missing or too short. */
  asks: string
  least?: number
  most?: number
  hint?: string
  type?: 'email' | 'password'
  autoComplete?: string
}

/** What a person signs in as. */
export const emailField = {
  name: 'email',
  label: 'E-mail address',
  asks: 'Give your address',
  type: 'email',
  autoComplete: 'username',
} as const

/** A few lines to fill in before anything else is there; all are needed, each says so itself. */
export function AccountForm<Name extends string>({
  fields,
  send,
  sending,
  onSend,
}: {
  fields: readonly Field<Name>[]
  /** What the button says. */
  send: string
  sending: boolean
  onSend: (filled: Record<Name, string>) => void
}) {
  const [filled, setFilled] = useState(() => Object.fromEntries(fields.map((f) => [f.name, ''])))
  const [asked, setAsked] = useState(false)
  // As it was typed: a blank at the end of a password is part of it.
  const isShort = (f: Field<Name>) => filled[f.name]!.length < (f.least ?? 1)
  const lacks = (f: Field<Name>) => asked && isShort(f)
  return (
    <form
      className="account-form"
      noValidate
      onSubmit={(e) => {
        e.preventDefault()
        setAsked(true)
        const short = fields.find(isShort)
        if (!short) return onSend(filled as Record<Name, string>)
        e.currentTarget.querySelector<HTMLInputElement>(`[name="${short.name}"]`)?.focus()
      }}
    >
      {fields.map((f, i) => {
        const told = lacks(f) ? f.asks : f.hint
        return (
          <div key={f.name}>
            <label htmlFor={`account-${f.name}`}>{f.label}</label>
            <input
              id={`account-${f.name}`}
              name={f.name}
              type={f.type ?? 'text'}
              autoComplete={f.autoComplete}
              maxLength={f.most}
              autoFocus={i === 0}
              value={filled[f.name]}
              onChange={(e) => setFilled({ ...filled, [f.name]: e.target.value })}
              aria-required
              aria-invalid={lacks(f)}
              aria-describedby={told ? `account-${f.name}-told` : undefined}
            />
            {told && <small id={`account-${f.name}-told`}>{told}</small>}
          </div>
        )
      })}
      <Button look="primary" type="submit" loading={sending}>
        {send}
      </Button>
    </form>
  )
}
