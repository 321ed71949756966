/** Where a device keeps the id of the garden last looked at on it. */
export const LAST_GARDEN = 'border.lastGarden'
