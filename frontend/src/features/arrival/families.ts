import type { ArrivalBody } from '@/api'

export const FAMILIES: ArrivalBody['family'][] = ['violin', 'viola', 'cello', 'bass']
