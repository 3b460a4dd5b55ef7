export { default as WordPanel } from './WordPanel.vue'
