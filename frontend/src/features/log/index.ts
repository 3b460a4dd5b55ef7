export { default as LogDialog } from './LogDialog.vue'
