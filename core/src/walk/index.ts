export { alongPlace, walkingOrder } from './walkingOrder.ts'
export { likelySigns, type Prospect } from './likelySigns.ts'
