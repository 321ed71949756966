import './button.css'

/** How much it asks to be pressed: the one next step, one of several, one beside text, one in a line of text. */
type Look = 'primary' | 'default' | 'text' | 'link'

interface Looks {
  look?: Look
  size?: 'small' | 'large'
  /** It takes something away. */
  danger?: boolean
  /** As wide as what it stands in. */
  block?: boolean
}

interface Props extends Looks, React.ComponentProps<'button'> {
  /** What it began is under way: it stays where it is, and does nothing until then. */
  loading?: boolean
}

/** Something that can be done; it sends no form unless it says so. */
export function Button({
  look,
  size,
  danger,
  block,
  loading = false,
  className,
  type = 'button',
  onClick,
  children,
  ...rest
}: Props) {
  return (
    <button
      // What it is for decides, and it is always one of the three.
      type={type}
      className={classOf({ look, size, danger, block }, className)}
      // It keeps the focus: what takes it away from a key’s user is `disabled`.
      aria-busy={loading || undefined}
      aria-disabled={loading || undefined}
      onClick={(e) => (loading ? e.preventDefault() : onClick?.(e))}
      {...rest}
    >
      {loading && <i className="button-turning" aria-hidden />}
      {children}
    </button>
  )
}

/** Somewhere to go or to take from that looks like something to press. */
export const ButtonLink = ({
  look,
  size,
  danger,
  block,
  className,
  ...rest
}: Looks & React.ComponentProps<'a'>) => (
  <a className={classOf({ look, size, danger, block }, className)} {...rest} />
)

const classOf = ({ look = 'default', size, danger, block }: Looks, own: string | undefined): string =>
  [
    'button',
    `button-${look}`,
    size && `button-${size}`,
    danger && 'button-danger',
    block && 'button-block',
    own,
  ]
    .filter(Boolean)
    .join(' ')
