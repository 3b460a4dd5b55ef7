export { default as InstrumentFrame } from './InstrumentFrame.vue'
export { COLUMNS } from './columns'
