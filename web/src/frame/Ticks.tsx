/** Something that is wished for or not. */
export const Tick = ({
  label,
  said,
  onSay,
}: {
  label: string
  said: boolean | undefined
  onSay: (said: true | undefined) => void
}) => (
  <label>
    <input type="checkbox" checked={said ?? false} onChange={(e) => onSay(e.target.checked || undefined)} />{' '}
    {label}
  </label>
)

/** Some of several; none of them is no wish. */
export function Ticks<T extends string>({
  label,
  of,
  said = [],
  onSay,
}: {
  label: string
  of: readonly T[]
  said: readonly T[] | undefined
  onSay: (said: T[] | undefined) => void
}) {
  return (
    <span className="wide row">
      {label}
      {of.map((one) => (
        <Tick
          key={one}
          label={one}
          said={said.includes(one)}
          onSay={(isIn) => {
            const next = [...said.filter((o) => o !== one), ...(isIn ? [one] : [])]
            onSay(next.length > 0 ? next : undefined)
          }}
        />
      ))}
    </span>
  )
}
