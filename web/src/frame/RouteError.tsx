import { Button } from 'antd'
import { isRouteErrorResponse, useRouteError } from 'react-router'
import { Whole } from './Shell.tsx'

/** What is shown when a screen itself breaks: what was kept and what to do. */
export function RouteError() {
  const error = useRouteError()
  const detail = isRouteErrorResponse(error)
    ? error.statusText
    : error instanceof Error
      ? error.message
      : String(error)
  return (
    <Whole title="This screen stopped working">
      <p>
        Everything you saved is safe on the server. Load the page again; if it happens again, pass on the line
        below.
      </p>
      <p>
        <small>{detail}</small>
      </p>
      <div className="row">
        <Button type="primary" onClick={() => location.reload()}>
          Load again
        </Button>
        <Button href="/">Go to the start</Button>
      </div>
    </Whole>
  )
}
