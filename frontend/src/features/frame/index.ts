export { default as InstrumentFrame } from './InstrumentFrame.vue'
