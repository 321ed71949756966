// @vitest-environment happy-dom
import { screen } from '@testing-library/react'
import { beforeEach, expect, it } from 'vitest'
import { openApp } from './openApp.tsx'
import { gardenId, MockServer } from './server.ts'

beforeEach(async () => {
  await MockServer.fresh()
})

/** Two forms on one screen whose fields share a name: a label that means another form's field is worse than none. */
it.each(['set-up', 'season', 'rules', 'plants', 'now', 'record'])(
  'every label on %s means a field of its own, and no two things have one id',
  async (path) => {
    const { user } = openApp(`/g/${gardenId}/${path}`)
    await screen.findByRole('heading', { level: 1 })
    for (const name of [/^Add plants$/, /^Put something on it$/, /^Record it/, /^Add a rule of your own$/])
      for (const button of screen.queryAllByRole('button', { name })) await user.click(button)
    // Of the component library itself, which names some of its parts so wherever it is tested.
    const ids = [...document.querySelectorAll('[id]')].map((e) => e.id).filter((id) => id !== 'test-id')
    expect(ids.filter((id, i) => ids.indexOf(id) !== i)).toEqual([])
    for (const label of document.querySelectorAll<HTMLLabelElement>('label[for]'))
      expect([label.textContent, label.control !== null]).toEqual([label.textContent, true])
  },
)
