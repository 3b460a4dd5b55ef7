export { default as OutboxBar } from './OutboxBar.vue'
