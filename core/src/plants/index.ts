export * from './taxon.ts'
export { library } from './library.ts'
