export { default as InstrumentPage } from './InstrumentPage.vue'
