export { default as InstrumentRecipe } from './InstrumentRecipe.vue'
export { default as RecipesPage } from './RecipesPage.vue'
