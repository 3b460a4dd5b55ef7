/** What is opened rarely, and is loaded then. */
export { default as BenchDialog } from './BenchDialog.vue'
export { default as PeoplePage } from './PeoplePage.vue'
