export { default as WordPanel } from './WordPanel.vue'
export { default as QuestionPanel } from './QuestionPanel.vue'
export { default as MainAct } from './MainAct.vue'
