import { reworkEndpoints, type ReworkView, type SaidScheme, type SchemeView } from '@border/contract'
import { counted, isLaidOut, type KindOf, kindsOf } from '@border/core'
import { Input } from 'antd'
import { useState } from 'react'
import { Link, useLocation } from 'react-router'
import { useGardenWrite } from '../api/writes.ts'
import { searchWith } from '../frame/address.ts'
import { Button } from '../frame/Button.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { Segments } from '../frame/Segments.tsx'
import { schemeNames } from './schemeDraft.ts'
import type { SchemeEditor } from './useScheme.ts'
import './rework.css'

/** What a scheme comes to, and what is next. */
export function Lead({
  editor: { said },
  kindOf,
  unknown,
}: {
  editor: SchemeEditor
  kindOf: KindOf
  unknown: number
}) {
  const leaves = said.leaving.filter((l) => l.how === 'leaves').length
  const kinds = kindsOf(said).filter((k) => kindOf.has(k.botanical))
  const plants = kinds.reduce((sum, k) => sum + k.count, 0)
  const next = kinds.length === 0 ? 'Next: which kinds come in.' : isLaidOut(said) ? '' : 'Next: lay it out.'
  return (
    <>
      {leaves === 0
        ? 'Nothing leaves'
        : `${counted(leaves, 'planting')} ${leaves === 1 ? 'leaves' : 'leave'}`}
      ;{' '}
      {kinds.length === 0
        ? 'nothing comes in yet'
        : `${counted(plants, 'plant')} of ${counted(kinds.length, 'kind')} come in`}
      .{' '}
      {unknown > 0 &&
        `${counted(unknown, 'drift')} of kinds that are no longer in the plant library ${unknown === 1 ? 'is' : 'are'} not drawn. `}
      {next}
    </>
  )
}

/** To the scheme on paper. */
export const SheetLink = ({ reworkId, schemeId }: { reworkId: string; schemeId: string }) => {
  const { search } = useLocation()
  const ofSheet = searchWith(search, { scheme: schemeId, part: undefined })
  return <Link to={{ pathname: `../rework/${reworkId}/sheet`, search: ofSheet }}>Planting sheet</Link>
}

/** What a scheme is called: said once it is left, or Enter is pressed. */
export function Name({ said: { name }, onSay }: { said: SaidScheme; onSay: (name: string) => void }) {
  const [typed, setTyped] = useState<string>()
  const say = () => {
    setTyped(undefined)
    if (typed?.trim() && typed.trim() !== name) onSay(typed.trim())
  }
  return (
    <Input
      size="small"
      className="rework-name"
      aria-label="What the scheme is called"
      value={typed ?? name}
      maxLength={120}
      onChange={(e) => setTyped(e.target.value)}
      onBlur={say}
      onPressEnter={say}
    />
  )
}

const LETTERS = 'ABCDEF'

/** Which scheme is looked at; another beside it, as this one is or from nothing. */
export function SchemeTools({
  rework,
  scheme,
  editor: { said },
  onScheme,
}: {
  rework: ReworkView
  scheme: SchemeView
  editor: SchemeEditor
  onScheme: (id: string) => void
}) {
  const { view, isHead } = useGardenContext()
  const { search } = useLocation()
  const params = { gardenId: view.garden.id, reworkId: rework.id }
  const add = useGardenWrite(reworkEndpoints.addScheme, params, 'Another scheme, as this one is.')
  const withdraw = useGardenWrite(
    reworkEndpoints.withdrawScheme,
    { ...params, schemeId: scheme.id },
    'The scheme is taken away.',
  )
  const names = schemeNames(rework.schemes)
  return (
    <>
      {rework.schemes.length > 1 && (
        <Segments
          label="Scheme"
          value={scheme.id}
          options={rework.schemes.map((s, i) => ({ value: s.id, label: names[i]! }))}
          onChange={onScheme}
        />
      )}
      {isHead && (
        <>
          <Button
            size="small"
            loading={add.isPending}
            onClick={() => {
              const id = crypto.randomUUID()
              const name = `Scheme ${LETTERS[rework.schemes.length] ?? rework.schemes.length + 1}`
              add.mutate({ id, said: { ...said, name } }, { onSuccess: () => onScheme(id) })
            }}
          >
            Another like this
          </Button>
          {rework.schemes.length > 1 && !scheme.accepted && (
            <Button size="small" look="text" danger onClick={() => withdraw.mutate({})}>
              Take this away
            </Button>
          )}
        </>
      )}
      <Link
        to={{ pathname: '../rework', search: searchWith(search, { scheme: undefined, part: undefined }) }}
      >
        All reworks
      </Link>
    </>
  )
}
