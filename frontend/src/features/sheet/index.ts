export { default as EmptyBench } from './EmptyBench.vue'
export { default as SheetPage } from './SheetPage.vue'
