/** Where a target comes from, as one key for a list of choices. */
import type { SourceBody } from '@/api'

export const SourceKind = { recipe: 'recipe' } as const

export function sourceKey(kind: string, of: string): string {
  return of === '' ? kind : `${kind}:${of}`
}

export function sourceOf(key: string): SourceBody {
  const at = key.indexOf(':')
  const kind = at < 0 ? key : key.slice(0, at)
  if (kind !== 'as_found' && kind !== 'visit' && kind !== 'instrument') throw new Error(`no source “${key}”`)
  return { kind, of: at < 0 ? '' : key.slice(at + 1) }
}
