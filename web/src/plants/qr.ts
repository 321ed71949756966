import { encode } from 'uqr'

/** Clear modules about the code, by which a camera finds it (ISO/IEC 18004). */
export const QUIET = 4

/** A QR code of a text: so many modules on a side with the quiet ones, and the dark ones as a path of unit squares. */
export function qrOf(text: string): { size: number; path: string } {
  // A quarter of it may be soiled: labels stand in beds.
  const { size, data } = encode(text, { ecc: 'Q', border: QUIET })
  const path = data.flatMap((row, y) => row.map((isDark, x) => (isDark ? `M${x},${y}h1v1h-1z` : ''))).join('')
  return { size, path }
}
