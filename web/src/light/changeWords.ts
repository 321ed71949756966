import type { ChangeKind } from '@border/core'

export const changeWords: Record<ChangeKind, string> = {
  appeared: 'went up',
  gone: 'gone',
  limbed: 'limbed up',
  thinned: 'thinned',
  lowered: 'lowered',
  measured: 'measured anew',
  grown: 'grown',
}
