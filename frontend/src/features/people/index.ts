export { default as BenchDialog } from './BenchDialog.vue'
export { default as PeoplePage } from './PeoplePage.vue'
export { default as SignIn } from './SignIn.vue'
export { default as PasswordAgain } from './PasswordAgain.vue'
