export { default as EndView } from './EndView.vue'
export { default as OtherViews } from './OtherViews.vue'
export { sheetGeometry, type SheetGeometry } from './geometry'
export { VIEWS, type ViewName } from './views'
