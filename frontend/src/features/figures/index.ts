export { default as FiguresPage } from './FiguresPage.vue'
