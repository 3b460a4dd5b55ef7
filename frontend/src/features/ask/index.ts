export { default as AskPage } from './AskPage.vue'
