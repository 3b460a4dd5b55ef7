export { default as LookPage } from './LookPage.vue'
export { default as VerdictMark } from './VerdictMark.vue'
export { VERDICTS, VERDICT_WORDS } from './verdicts'
