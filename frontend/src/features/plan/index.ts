export { default as PlanPage } from './PlanPage.vue'
export { default as FleetEstimate } from './FleetEstimate.vue'
export { default as EstimatePaper } from './EstimatePaper.vue'
