export { default as MeasuringPage } from './MeasuringPage.vue'
