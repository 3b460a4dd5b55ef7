export { default as NutFiledDialog } from './NutFiledDialog.vue'
export { default as WorkDialog } from './WorkDialog.vue'
