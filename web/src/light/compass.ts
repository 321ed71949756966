const points = ['north', 'north-east', 'east', 'south-east', 'south', 'south-west', 'west', 'north-west']

/** `in the south-west` */
export const compass = (azimuthDeg: number): string =>
  `in the ${points[((Math.round(azimuthDeg / 45) % 8) + 8) % 8]}`
