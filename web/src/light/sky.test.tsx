// @vitest-environment happy-dom
import { gardenEndpoints } from '@border/contract'
import { pointSky, sceneOf } from '@border/core'
import { render } from '@testing-library/react'
import { expect, it } from 'vitest'
import { answerTo } from '../test/server.ts'
import { SkyDiagram } from './SkyDiagram.tsx'

const { garden } = answerTo(gardenEndpoints.read)

it('the chosen month is named in every sky, and no month lies on the name of another', () => {
  for (const latitude of [-55, -34, 0, 12, 40, 52, 64]) {
    const sky = pointSky(sceneOf({ ...garden, latitude }, []), { x: 0, y: 0, z: 0 }, '2026-06-21')
    for (let month = 1; month <= 12; month++) {
      const { container, unmount } = render(<SkyDiagram sky={sky} month={month} />)
      const names = [...container.querySelectorAll('.sky-month')]
      const at = names.map((n) => [Number(n.getAttribute('x')), Number(n.getAttribute('y'))] as const)
      expect(container.querySelectorAll('.sky-month.chosen').length).toBe(1)
      expect(new Set(names.map((n) => n.textContent)).size).toBe(names.length)
      // Two letters high, four letters wide: what lies closer covers the other.
      for (const [i, [x, y]] of at.entries())
        for (const [u, v] of at.slice(i + 1))
          expect([latitude, month, Math.abs(x - u) >= 24 || Math.abs(y - v) >= 10]).toEqual([
            latitude,
            month,
            true,
          ])
      // Midsummer and midwinter are far enough apart to be told from one another away from the tropics.
      if (Math.abs(latitude) > 30) expect(names.length).toBeGreaterThanOrEqual(3)
      unmount()
    }
  }
})
