/** What a screen is, in a sentence what it says, and what can be done on it. */
export function ScreenHead({
  title,
  lead,
  isNotPrinted,
  children,
}: {
  title: React.ReactNode
  lead?: React.ReactNode
  isNotPrinted?: boolean
  /** The tools of the screen. */
  children?: React.ReactNode
}) {
  return (
    <header className={`screen-head${isNotPrinted ? ' no-print' : ''}`}>
      <div>
        <h1>{title}</h1>
        <p>{lead}</p>
      </div>
      {children && <div className="screen-tools">{children}</div>}
    </header>
  )
}
