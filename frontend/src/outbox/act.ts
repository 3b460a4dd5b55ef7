/** An act as the API's description has it, ready to be put in the outbox. */
import type { paths } from '@/api/schema'
import type { Act } from './rows'

type Method = 'post' | 'put' | 'patch'
type PathOf<M extends Method> = { [P in keyof paths]: paths[P] extends Record<M, { responses: unknown }> ? P : never }[keyof paths]
type Operation<P extends keyof paths, M extends Method> = paths[P] extends Record<M, infer O> ? O : never
type Part<T, K extends string> = T extends Record<K, infer V> ? { [N in K]: V } : T extends Partial<Record<K, infer V>> ? { [N in K]?: V } : unknown
type Params<O> = O extends { parameters: infer Q } ? Part<Q, 'path'> & Part<Q, 'query'> : unknown
type Body<O> = O extends { requestBody: { content: { 'application/json': infer B } } } ? { body: B } : unknown
type Asked<P extends keyof paths, M extends Method> = { params: Params<Operation<P, M>>; words: string; work?: string; blob?: Blob } & Body<Operation<P, M>>

function made(method: Act['method'], path: string, asked: { params: unknown; words: string; work?: string; blob?: Blob; body?: unknown }): Act {
  const { params, words, work = '', blob, body } = asked
  return { method, path, params: params as Act['params'], words, work, blob, body }
}

export const post = <P extends PathOf<'post'>>(path: P, asked: Asked<P, 'post'>): Act => made('POST', path, asked)
export const put = <P extends PathOf<'put'>>(path: P, asked: Asked<P, 'put'>): Act => made('PUT', path, asked)
export const patch = <P extends PathOf<'patch'>>(path: P, asked: Asked<P, 'patch'>): Act => made('PATCH', path, asked)
