/** Which course of measuring is gone through, and how spacing is read: kept in this browser. */
import type { Ref } from 'vue'
import { useStored } from '@/shared/stored'
import type { CourseName, SpacingForm } from './courses'

export interface UseCourseReturn {
  course: Ref<CourseName>
  form: Ref<SpacingForm>
}

export function useCourse(): UseCourseReturn {
  return { course: useStored<CourseName>('course', 'full'), form: useStored<SpacingForm>('spacing-form', 'spread') }
}
