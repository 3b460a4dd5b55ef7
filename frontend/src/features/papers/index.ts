export { default as BlankCard } from './BlankCard.vue'
export { default as PapersPage } from './PapersPage.vue'
export { default as PaperSheet } from './PaperSheet.vue'
export { default as PaperBlocks } from './PaperBlocks.vue'
