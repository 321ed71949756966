import type { SketchFill } from '../sketch.ts'

/** Three years of what the pots of the terrace were filled with, those that failed among them. */

type In = SketchFill['in']

const summer = (year: number, plants: In, more: Partial<SketchFill> = {}): SketchFill => ({
  on: `${year}-05-24`,
  name: `Summer ${year}`,
  season: 'summer',
  mix: 'summer',
  renewed: 0.33,
  in: plants,
  ...more,
})
const winter = (year: number, plants: In, more: Partial<SketchFill> = {}): SketchFill => ({
  on: `${year}-10-11`,
  name: `Winter ${year}`,
  season: 'winter',
  mix: 'winter',
  renewed: 0.33,
  in: plants,
  ended: 'went over',
  ...more,
})
/** What stays for years. */
const lasting = (on: string, more: Partial<SketchFill> = {}): SketchFill => ({
  on,
  name: 'Planted to stay',
  season: 'summer',
  mix: 'lasting',
  renewed: 1,
  in: [],
  ...more,
})

const pansies: In = [
  ['Viola × wittrockiana', 7, 'filler'],
  ['Tulipa Garden group', 12, 'filler'],
]

export const terraceFills: Readonly<Record<string, readonly SketchFill[]>> = {
  'Door pot 1': [lasting('2022-05-14')],
  'Door pot 2': [
    summer(2024, [['Begonia × semperflorens', 7, 'filler']], { renewed: 1 }),
    winter(2024, pansies),
    summer(2025, [['Begonia × semperflorens', 7, 'filler']], { ended: 'went over' }),
    winter(2025, [['Tulipa Garden group', 12, 'filler']], { on: '2025-10-12' }),
  ],
  'Door pot 3': [lasting('2022-03-20', { mix: 'limeFree' })],
  'Door pot 4': [lasting('2023-04-18')],
  'Door pot 5': [lasting('2023-04-18', { note: 'Copper tape under the rim against slugs.' })],
  'Door pot 6': [
    summer(2024, [['Impatiens walleriana', 7, 'filler']], { renewed: 1 }),
    winter(2024, [['Bellis perennis', 7, 'filler']], {
      ended: 'disease',
      note: 'Mildew on all of them by September.',
    }),
    summer(2025, [['Fuchsia × hybrida', 3, 'filler']], { ended: 'went over' }),
    winter(2025, [['Cyclamen hederifolium', 5, 'filler']]),
    summer(2026, [], { on: '2026-05-26', ended: 'went over', saves: ['Cyclamen hederifolium'] }),
  ],
  'Door pot 7': [lasting('2021-11-08', { season: 'winter' })],
  'Door pot 8': [lasting('2022-04-02', { mix: 'limeFree' })],
  'Door pot 9': [lasting('2022-05-14')],
  'Door pot 10': [
    summer(2025, [['Pelargonium × hortorum', 3, 'filler']], { on: '2025-04-18', renewed: 1 }),
    winter(2025, [['Viola cornuta', 7, 'filler']], {
      ended: 'frost',
      note: 'Set out on 18 April; the frost of early May took two of three, and they never caught up.',
    }),
    summer(2026, [], { on: '2026-05-26', ended: 'went over' }),
  ],
  'Terrace pot 1': [lasting('2020-03-14')],
  'Terrace pot 2': [lasting('2021-06-02', { mix: 'lean' })],
  'Terrace pot 3': [lasting('2022-04-20', { mix: 'lean' })],
  'Terrace pot 4': [lasting('2023-04-20', { mix: 'lean' })],
  'Terrace pot 5': [lasting('2021-05-16')],
  'Terrace pot 6': [lasting('2022-04-20', { mix: 'lean' })],
  'Terrace pot 7': [lasting('2021-05-16', { mix: 'lean' })],
  'Terrace pot 8': [
    summer(2024, [['Petunia × atkinsiana', 5, 'filler']], { renewed: 1 }),
    winter(2024, pansies),
    summer(2025, [['Petunia × atkinsiana', 5, 'filler']], { ended: 'went over' }),
    winter(2025, pansies, { ended: 'heat', note: 'Petunias stood still from the heat of July on.' }),
    summer(2026, [], { on: '2026-05-26', ended: 'went over' }),
  ],
  'Terrace pot 9': [lasting('2021-03-30')],
  'Terrace pot 10': [lasting('2023-10-20', { season: 'winter', mix: 'winter' })],
  'Wash house trough': [
    summer(
      2024,
      [
        ['Salvia farinacea', 5, 'focal'],
        ['Tagetes patula', 7, 'filler'],
        ['Lobelia erinus', 6, 'trailer'],
      ],
      { renewed: 1 },
    ),
    winter(2024, [
      ['Erysimum cheiri', 6, 'filler'],
      ['Tulipa Garden group', 20, 'filler'],
    ]),
    summer(
      2025,
      [
        ['Zinnia elegans', 7, 'focal'],
        ['Lobularia maritima', 8, 'trailer'],
      ],
      { ended: 'went over' },
    ),
    winter(
      2025,
      [
        ['Heuchera villosa', 3, 'focal'],
        ['Viola cornuta', 8, 'filler'],
      ],
      { ended: 'eaten', note: 'Slugs took the zinnias twice; a third sowing flowered from August.' },
    ),
    summer(
      2026,
      [
        ['Salvia farinacea', 4, 'focal'],
        ['Calibrachoa × hybrida', 5, 'trailer'],
      ],
      { ended: 'went over', keeps: ['Heuchera villosa'] },
    ),
  ],
  'Basket at number two': [
    summer(
      2024,
      [
        ['Pelargonium peltatum', 3, 'trailer'],
        ['Lobelia erinus', 4, 'trailer'],
      ],
      { renewed: 1 },
    ),
    summer(
      2025,
      [
        ['Fuchsia × hybrida', 2, 'focal'],
        ['Lobelia erinus', 4, 'trailer'],
      ],
      { renewed: 1, ended: 'went over' },
    ),
    summer(
      2026,
      [
        ['Fuchsia × hybrida', 2, 'focal'],
        ['Scaevola aemula', 3, 'trailer'],
      ],
      { renewed: 1, ended: 'went over' },
    ),
  ],
  'Basket at number five': [
    summer(
      2025,
      [
        ['Petunia × atkinsiana', 3, 'filler'],
        ['Lobelia erinus', 4, 'trailer'],
      ],
      { renewed: 1 },
    ),
    summer(
      2026,
      [
        ['Pelargonium peltatum', 3, 'trailer'],
        ['Dichondra argentea', 2, 'trailer'],
      ],
      {
        renewed: 1,
        ended: 'dried out',
        note: 'Missed for four days in July; the lobelia did not come back.',
      },
    ),
  ],
  'Step bowl': [
    lasting('2024-04-14', { mix: 'lean', in: [['Sempervivum tectorum', 7, 'filler']] }),
    summer(2026, [['Sedum acre', 3, 'trailer']], {
      mix: 'lean',
      renewed: 0.2,
      on: '2026-04-22',
      keeps: ['Sempervivum tectorum'],
    }),
  ],
  'Zinc tub': [
    summer(2024, [['Cosmos bipinnatus', 5, 'filler']], { renewed: 1 }),
    winter(2024, pansies, {
      ended: 'drowned',
      note: 'It has no hole: water stood to the rim after the rain of August.',
    }),
    summer(2025, [['Dahlia × pinnata', 3, 'filler']], {
      ended: 'drowned',
      note: 'The same again over winter: not one tulip.',
    }),
  ],
  'Long box': [
    lasting('2024-10-20', {
      season: 'winter',
      in: [
        ['Buxus sempervirens', 3, 'focal'],
        ['Hedera helix', 4, 'trailer'],
      ],
    }),
    summer(2026, [['Begonia × semperflorens', 8, 'filler']], {
      mix: 'lasting',
      keeps: ['Buxus sempervirens', 'Hedera helix'],
    }),
  ],
}
