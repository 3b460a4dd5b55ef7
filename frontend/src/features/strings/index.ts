export { default as StringsDialog } from './StringsDialog.vue'
