export { default as WorkDialog } from './WorkDialog.vue'
