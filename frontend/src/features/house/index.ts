export { default as HousePage } from './HousePage.vue'
