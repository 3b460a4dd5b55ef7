export { default as DamagePage } from './DamagePage.vue'
