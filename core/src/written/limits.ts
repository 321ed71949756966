/** What may be written down, and how much of it: by hand, in a file or by another program, everywhere the same. */
export const limits = {
  /** Lists and objects within each other. */
  nesting: 32,
  /** Values of one request beside each other; files travel as one. */
  values: 20_000,
  /** Corners of one outline or line. */
  corners: 1000,
  /** From the garden's position to anything in its plan, either way: metres. */
  reachM: 10_000,
  /** One bed from end to end, metres. */
  bedAcrossM: 1000,
  /** Points of one picture: more than cameras make. */
  pixels: 60_000_000,
  /** Things on one plan. */
  features: 5000,
  /** The oldest trees that stand in gardens are younger. */
  earliestYear: 1500,
  /** Of what a person saw or did. */
  earliestRecordYear: 1950,
  latestYear: 2199,
  /** One absence, days. */
  absenceDays: 1100,
  /** Least and most of a day's weather, degrees Celsius, mm, metres a second, share of the sky: beyond all that was ever measured. */
  celsius: [-90, 60],
  rainMm: [0, 2000],
  windMs: [0, 120],
  cloud: [0, 1],
} as const
