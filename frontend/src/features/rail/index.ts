export { default as RailOfTags } from './RailOfTags.vue'
export { useHouse } from './store'
export { RAIL_ORDERS } from './order'
