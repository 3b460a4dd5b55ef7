export { default as SchoolsDialog } from './SchoolsDialog.vue'
