/** A place by degrees, north and east positive. */
export interface Coordinates {
  latitude: number
  longitude: number
}

const HEMISPHERES = { N: 1, S: -1, E: 1, W: -1 } as const
type Hemisphere = keyof typeof HEMISPHERES

/**
 * Where something lies, as it is written anywhere: `42.27 N 71.8 W`, `42°16'12"N, 71°48'W`, `N 42 16.2 W 71 48`, `42.27, -71.8`; without
 * letters the latitude comes first.
 *
 * @returns undefined where it is no place
 */
export function coordinatesTyped(text: string): Coordinates | undefined {
  const said = text
    .toUpperCase()
    .replaceAll(/[−–]/g, '-')
    .replaceAll(/\b(NORTH|SOUTH|EAST|WEST)\b/g, (word) => word[0]!)
  if (/[^\d\s.,;:+\-°º'’′"”″NSEW]/.test(said)) return undefined
  return /[NSEW]/.test(said) ? byLetters(said) : bySigns(said)
}

function bySigns(said: string): Coordinates | undefined {
  const numbers = said.match(/[+-]?\d+(?:\.\d+)?/g)
  if (numbers?.length !== 2) return undefined
  const [latitude, longitude] = numbers.map(Number)
  return onEarth(latitude!, longitude!)
}

function byLetters(said: string): Coordinates | undefined {
  const one = String.raw`([^NSEW]*\d[^NSEW]*)`
  const [, ...pieces] =
    new RegExp(`^${one}([NSEW])${one}([NSEW])\\W*$`).exec(said) ??
    new RegExp(`^\\W*([NSEW])${one}([NSEW])${one}$`).exec(said) ??
    []
  if (pieces.length === 0) return undefined
  const at: Partial<Record<'NS' | 'EW', number>> = {}
  for (const pair of [pieces.slice(0, 2), pieces.slice(2)]) {
    const letter = pair.find((p) => p in HEMISPHERES) as Hemisphere
    const degrees = degreesOf(pair.find((p) => p !== letter)!)
    if (degrees === undefined) return undefined
    at['NS'.includes(letter) ? 'NS' : 'EW'] = HEMISPHERES[letter] * degrees
  }
  return at.NS === undefined || at.EW === undefined ? undefined : onEarth(at.NS, at.EW)
}

/** Degrees, with minutes and seconds where there are any; a comma between digits is a decimal one. */
function degreesOf(text: string): number | undefined {
  const numbers = text.replaceAll(/(\d),(?=\d)/g, '$1.').match(/-?\d+(?:\.\d+)?/g)
  if (!numbers || numbers.length > 3) return undefined
  const [degrees, minutes = 0, seconds = 0] = numbers.map(Number)
  // Beside a letter a minus would say it twice.
  if (degrees! < 0 || minutes >= 60 || seconds >= 60 || minutes < 0 || seconds < 0) return undefined
  return degrees! + minutes / 60 + seconds / 3600
}

const onEarth = (latitude: number, longitude: number): Coordinates | undefined =>
  Math.abs(latitude) <= 90 && Math.abs(longitude) <= 180 ? { latitude, longitude } : undefined
