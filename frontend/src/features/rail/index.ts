export { default as RailOfTags } from './RailOfTags.vue'
export { useHouse } from './store'
