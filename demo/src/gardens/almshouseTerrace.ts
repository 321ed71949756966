import { area, line, pot, spot, type SketchGarden } from '../sketch.ts'

const potRow = (name: string, y: number, sizes: readonly number[]) =>
  sizes.map((d, i) =>
    pot(`${name} ${i + 1}`, [2.5 + i * 3.1, y], d, d * 0.9, i % 3 === 1 ? 'terracotta' : 'glazed clay'),
  )

/** Six almshouses with pots at their north doors, a terrace of pots, a narrow bed at its foot and a lime at the gate. */
export const almshouseTerrace: SketchGarden = {
  name: 'Almshouse Terrace',
  latitude: 52.0978,
  longitude: 1.2967,
  tagPrefix: 'A',
  seed: 23,
  features: [
    area(
      'building',
      'Almshouses',
      [
        [0, -8],
        [32, -8],
        [32, -2],
        [0, -2],
      ],
      { heightM: 5.6 },
    ),
    area(
      'building',
      'Chapel',
      [
        [-12, -6],
        [-4, -6],
        [-4, 9],
        [-12, 9],
      ],
      { heightM: 8.5 },
    ),
    area(
      'building',
      'Wash house',
      [
        [27, 11.5],
        [32, 11.5],
        [32, 15],
        [27, 15],
      ],
      { heightM: 3.2 },
    ),
    line(
      'wall',
      'Terrace wall',
      [
        [-4, 11.4],
        [27, 11.4],
      ],
      { heightM: 1.3, thicknessM: 0.4 },
    ),
    line(
      'fence',
      'Trellis screen',
      [
        [33, -2],
        [33, 11],
      ],
      { heightM: 2.4, transmission: 0.4 },
    ),
    spot('tree', 'Lime at the gate', [37, 3.5], {
      trunkRadiusM: 0.35,
      clearStemM: 2.2,
      heightM: 14,
      crownRadiusM: 4.8,
      transmissionInLeaf: 0.12,
      transmissionBare: 0.55,
      leafFrom: '04-22',
      leafTo: '11-05',
      events: [{ date: '2024-02-12', action: 'limbed', clearStemM: 5.5 }],
    }),
    area(
      'bed',
      'Terrace foot',
      [
        [0, 9],
        [26.6, 9],
        [26.6, 11],
        [0, 11],
      ],
      {
        soilTexture: 'clay loam',
        ph: 6.9,
        moisture: 'fresh',
        drainage: 'fair',
        viewedFrom: [180],
        irrigation: 'hand',
      },
    ),
    ...potRow('Door pot', -1.2, [0.6, 0.5, 0.6, 0.5, 0.6, 0.5, 0.6, 0.5, 0.6, 0.5]),
    ...potRow('Terrace pot', 5.2, [0.8, 0.55, 0.8, 0.55, 0.8, 0.55, 0.8, 0.55, 0.8, 0.55]),
    line(
      'hazard',
      'Water main',
      [
        [-2, 1],
        [34, 1],
      ],
      { note: 'Under the flags, 70 cm deep.' },
    ),
    area('path', 'Flagged terrace', [
      [0, -2],
      [32, -2],
      [32, 8],
      [0, 8],
    ]),
  ],
  plantings: {
    'Terrace foot': [
      ['Alchemilla mollis', 5, '2021-03-24'],
      ['Geranium pratense', 3, '2021-03-24'],
      ['Nerine bowdenii', 12, '2021-04-20', { at: [25.4, 10] }],
      ['Iris germanica', 5, '2021-09-02'],
      ['Anemone × hybrida', 3, '2021-04-20'],
      ['Tulipa sprengeri', 20, '2021-11-12'],
      ['Rosa glauca', 1, '2020-11-20', { at: [4, 10] }],
      ['Hylotelephium spectabile', 5, '2022-04-12'],
      ['Crocosmia × crocosmiiflora', 7, '2021-04-20'],
      ['Phlox paniculata', 3, '2021-10-10'],
      ['Buxus sempervirens', 3, '2019-10-15'],
      ['Digitalis purpurea', 5, '2025-09-18', { source: 'seed' }],
    ],
    'Door pot 1': [['Fuchsia magellanica', 1, '2022-05-14']],
    'Door pot 2': [['Viola × wittrockiana', 7, '2025-10-12']],
    'Door pot 3': [['Skimmia japonica', 1, '2022-03-20']],
    'Door pot 4': [['Heuchera villosa', 1, '2023-04-18']],
    'Door pot 5': [['Hosta sieboldiana', 1, '2023-04-18']],
    'Door pot 6': [['Begonia grandis', 3, '2026-05-26']],
    'Door pot 7': [['Sarcococca hookeriana', 1, '2021-11-08']],
    'Door pot 8': [['Athyrium niponicum', 1, '2022-04-02']],
    'Door pot 9': [['Fuchsia magellanica', 1, '2022-05-14']],
    'Door pot 10': [['Pelargonium × hortorum', 3, '2026-05-26']],
    'Terrace pot 1': [
      ['Acer palmatum', 1, '2020-03-14', { note: 'Stands out all winter; feet under the pot.' }],
    ],
    'Terrace pot 2': [['Sempervivum tectorum', 5, '2021-06-02']],
    'Terrace pot 3': [['Lavandula angustifolia', 1, '2022-04-20']],
    'Terrace pot 4': [['Dianthus plumarius', 3, '2023-04-20']],
    'Terrace pot 5': [['Agapanthus praecox', 1, '2021-05-16']],
    'Terrace pot 6': [['Thymus serpyllum', 3, '2022-04-20']],
    'Terrace pot 7': [['Salvia rosmarinus', 1, '2021-05-16']],
    'Terrace pot 8': [['Pelargonium × hortorum', 3, '2026-05-26']],
    'Terrace pot 9': [['Hydrangea paniculata', 1, '2021-03-30']],
    'Terrace pot 10': [['Lilium regale', 5, '2023-10-20']],
  },
  unrecorded: [],
  notes: [
    {
      tag: 'A-023',
      on: '2026-06-30',
      says: 'The keeper at number three waters it twice a day in June; still scorched at the tips.',
    },
    { tag: 'A-003', on: '2025-10-04', says: 'Flowered at last: the lime was limbed up two winters ago.' },
  ],
  unnoticed: [],
  trials: [],
  treatments: [],
  standpoints: [
    {
      name: 'Terrace foot from the path',
      place: 'Terrace foot',
      framing: 'From the path, the whole bed in the picture.',
      photographedOn: ['2025-06-08', '2026-06-08', '2026-09-04'],
    },
  ],
  moves: [],
}
