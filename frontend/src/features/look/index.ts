export { default as SeenDialog } from './SeenDialog.vue'
