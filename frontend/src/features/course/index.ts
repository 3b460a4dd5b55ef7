export { default as CourseString } from './CourseString.vue'
export { default as StepDialog } from './StepDialog.vue'
