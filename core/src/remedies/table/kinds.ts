/** Life forms, names and stages that many remedies are for. */
export const shrubs = ['deciduous shrub', 'evergreen shrub', 'climber'] as const
export const woody = [...shrubs, 'small tree'] as const
export const clumps = ['perennial', 'warm grass', 'cool grass', 'fern', 'groundcover', 'succulent'] as const
export const soft = [
  'perennial',
  'succulent',
  'annual',
  'tender perennial',
  'bulb',
  'warm grass',
  'cool grass',
] as const
export const conifers = ['Thuja', 'Chamaecyparis', 'Juniperus', 'Taxus', 'Pinus', 'Picea', 'Abies'] as const
export const inGrowth = ['waking', 'before bloom', 'in bloom', 'after bloom'] as const
