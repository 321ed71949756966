import type { BodyOf, sessionEndpoints } from '@border/contract'
import { Alert, Button, Form, Input } from 'antd'
import { useChangeSession } from '../api/session.ts'
import { errorText } from '../api/writes.ts'
import { Whole } from '../frame/Shell.tsx'

/** An empty practice asks for the person who will lead it. */
export function FirstAccount() {
  const change = useChangeSession()
  const required = (message: string) => [{ required: true, message }]
  return (
    <Whole title="Welcome to Seasoned Border">
      <p>
        Nobody has an account here yet. Make the first one; it leads the practice and can add gardens and
        people.
      </p>
      {change.error && <Alert type="error" title={errorText(change.error)} />}
      <Form
        name="account"
        layout="vertical"
        requiredMark={false}
        onFinish={(body: BodyOf<typeof sessionEndpoints.firstAccount>) =>
          change.mutate({ name: 'firstAccount', body })
        }
      >
        <Form.Item
          name="practiceName"
          label="Practice"
          rules={required('Name your practice')}
          extra="Your own name will do."
        >
          <Input autoFocus maxLength={120} />
        </Form.Item>
        <Form.Item name="name" label="Your name" rules={required('Give your name')}>
          <Input autoComplete="name" maxLength={120} />
        </Form.Item>
        <Form.Item name="email" label="E-mail address" rules={required('Give your address')}>
          <Input type="email" autoComplete="username" />
        </Form.Item>
        <Form.Item
          name="password"
          label="Password"
          rules={[{ required: true, min: 10, message: 'At least 10 characters' }]}
        >
          <Input.Password autoComplete="new-password" />
        </Form.Item>
        <Button type="primary" htmlType="submit" loading={change.isPending}>
          Make the account
        </Button>
      </Form>
    </Whole>
  )
}
