/** By feel, from the coarsest to the finest; chalk beside them. */
export const soilTextures = ['sand', 'sandy loam', 'loam', 'silt', 'clay loam', 'clay', 'chalk'] as const
export type SoilTexture = (typeof soilTextures)[number]
