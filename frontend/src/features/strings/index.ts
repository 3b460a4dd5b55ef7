export { default as StringsDialog } from './StringsDialog.vue'
export { default as StringsRecord } from './StringsRecord.vue'
