export { default as BenchCard } from './BenchCard.vue'
export { default as InHand } from './InHand.vue'
export { useBench } from './store'
export { useEntry } from './useEntry'
