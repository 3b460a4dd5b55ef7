/** What goes to the server, without the id that is made on the way. */
import type { components } from '@/api/schema'

type Schemas = components['schemas']
type Without<Body> = Omit<Body, 'id'>
export type HeardBody = Without<Schemas['HeardBody']>
export type MoveBody = Without<Schemas['MoveBody']>
export type TrialBody = Without<Schemas['TrialBody']>
export type WoodBody = Without<Schemas['WoodBody']>
export type PostBody = Without<Schemas['PostBody']>
