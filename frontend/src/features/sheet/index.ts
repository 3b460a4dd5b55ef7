export { default as SheetPage } from './SheetPage.vue'
