export { default as EndView } from './EndView.vue'
export { sheetGeometry, type SheetGeometry } from './geometry'
