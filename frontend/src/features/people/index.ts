export { default as SignIn } from './SignIn.vue'
export { default as PasswordAgain } from './PasswordAgain.vue'
export { default as GuessBar } from './GuessBar.vue'
