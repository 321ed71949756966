import { roleWords, type BodyOf, type sessionEndpoints, type SessionInfo } from '@border/contract'
import { Alert, Button, Form, Input } from 'antd'
import { useChangeSession } from '../api/session.ts'
import { errorText } from '../api/writes.ts'
import { Whole } from '../frame/Shell.tsx'

/** Sign in by address and password, or as one of the demo's people in one click. */
export function SignIn({ people }: { people: SessionInfo['demoPeople'] }) {
  const change = useChangeSession()
  return (
    <Whole title="Seasoned Border">
      <p className="soft">What to do next, where and when, for beds and pots that already exist.</p>
      {change.error && <Alert type="error" title={errorText(change.error)} />}
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
        <Form
          name="sign-in"
          layout="vertical"
          requiredMark={false}
          onFinish={(body: BodyOf<typeof sessionEndpoints.signIn>) => change.mutate({ name: 'signIn', body })}
        >
          <Form.Item
            name="email"
            label="E-mail address"
            rules={[{ required: true, message: 'Give your address' }]}
          >
            <Input type="email" autoComplete="username" autoFocus />
          </Form.Item>
          <Form.Item
            name="password"
            label="Password"
            rules={[{ required: true, message: 'Give your password' }]}
          >
            <Input.Password autoComplete="current-password" />
          </Form.Item>
          <Button type="primary" htmlType="submit" loading={change.isPending}>
            Sign in
          </Button>
        </Form>
      )}
    </Whole>
  )
}
