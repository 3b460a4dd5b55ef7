export { default as ParticularsDialog } from './ParticularsDialog.vue'
