export { default as ArrivalDialog } from './ArrivalDialog.vue'
