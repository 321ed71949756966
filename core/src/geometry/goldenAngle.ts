/**
 * Turned by it again and again no two directions come near each other, and points at growing distances spread evenly over a round, radians
 * (Vogel 1979, Mathematical Biosciences 44, 179-189).
 */
export const GOLDEN_ANGLE = Math.PI * (3 - Math.sqrt(5))
