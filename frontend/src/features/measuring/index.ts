export { default as MeasuringPage } from './MeasuringPage.vue'
export { COURSES, linesOf, placesOf } from './courses'
export { useCourse } from './useCourse'
