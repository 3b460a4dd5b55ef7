export { default as SaidDialog } from './SaidDialog.vue'
export { isAskedOf, type AskedWork, type WorkSaid } from './said'
export { default as WorkDialog } from './WorkDialog.vue'
