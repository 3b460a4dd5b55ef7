export { default as CourseString } from './CourseString.vue'
