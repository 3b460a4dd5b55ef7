export { default as ScreeningPage } from './ScreeningPage.vue'
