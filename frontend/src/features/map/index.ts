export { default as InstrumentMap } from './InstrumentMap.vue'
export { default as MapStrip } from './MapStrip.vue'
export { default as StateMark } from './StateMark.vue'
export { besideAt, partOf, type PartName } from './parts'
