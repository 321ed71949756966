import fc from 'fast-check'

/**
 * Properties are tried on the same cases each time, so that the same code is told the same; PROPERTY_SEED tries others:
 *
 *     PROPERTY_SEED=$RANDOM npx vitest run core/src/light
 */
fc.configureGlobal({ seed: Number(process.env.PROPERTY_SEED ?? 20261129) })
