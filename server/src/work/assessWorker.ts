import { assess } from './assess.ts'

export default assess
