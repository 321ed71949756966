export const soilTextures = ['sand', 'sandy loam', 'loam', 'silt', 'clay loam', 'clay', 'chalk'] as const
export type SoilTexture = (typeof soilTextures)[number]
