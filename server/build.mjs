import { build } from 'esbuild'
import { readFileSync } from 'node:fs'
import { tsImport } from 'tsx/esm/api'

/** For production: the server, the thread it computes on, and the stand-in for a weather service. Packages from the registry stay outside. */
const { dependencies } = JSON.parse(readFileSync(new URL('package.json', import.meta.url), 'utf8'))
const core = JSON.parse(readFileSync(new URL('../core/package.json', import.meta.url), 'utf8'))
const { hashOfSources } = await tsImport('./src/hashOfSources.ts', import.meta.url)
await build({
  entryPoints: {
    main: 'src/main.ts',
    computeThread: 'src/work/computeThread.ts',
    weatherService: 'src/standIns/weatherService.ts',
  },
  absWorkingDir: import.meta.dirname,
  outdir: 'dist',
  bundle: true,
  platform: 'node',
  format: 'esm',
  target: 'node20',
  sourcemap: true,
  define: { __CODE_VERSION__: JSON.stringify(hashOfSources(new URL('../', import.meta.url))) },
  external: [...Object.keys(dependencies), ...Object.keys(core.dependencies)].filter(
    (name) => !name.startsWith('@border/'),
  ),
})
