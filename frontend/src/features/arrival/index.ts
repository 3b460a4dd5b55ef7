export { default as ArrivalDialog } from './ArrivalDialog.vue'
export { default as FleetDialog } from './FleetDialog.vue'
