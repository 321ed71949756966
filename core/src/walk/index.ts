export { alongPlace, walkingOrder } from './walkingOrder.ts'
export { likelySigns, type Prospect } from './likelySigns.ts'
export { seenWords, stageWords, type SeenInWords } from './seenWords.ts'
