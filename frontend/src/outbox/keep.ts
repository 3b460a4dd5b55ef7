/** Where rows are kept: in IndexedDB, or for this page alone where a browser has none. */
import { openDB, type DBSchema, type IDBPDatabase } from 'idb'
import type { Row } from './rows'

const DATABASE = 'fidicula'
const VERSION = 1

interface Tables extends DBSchema {
  rows: { key: number; value: Row }
  blobs: { key: string; value: Blob }
}

export interface Keep {
  /** Whether a reload finds it again. */
  lasts: boolean
  all: () => Promise<Row[]>
  add: (row: Row, blob?: Blob) => Promise<void>
  change: (row: Row) => Promise<void>
  drop: (row: Row) => Promise<void>
  /** So many rows at or after an order. */
  some: (from: number, count: number) => Promise<Row[]>
  blob: (id: string) => Promise<Blob | undefined>
}

export async function openKeep(name = DATABASE): Promise<Keep> {
  try {
    return inDatabase(
      await openDB<Tables>(name, VERSION, {
        upgrade(db) {
          db.createObjectStore('rows', { keyPath: 'order' })
          db.createObjectStore('blobs')
        },
      }),
    )
  } catch {
    return inMemory()
  }
}

function inDatabase(db: IDBPDatabase<Tables>): Keep {
  return {
    lasts: true,
    all: () => db.getAll('rows'),
    async add(row, blob) {
      const change = db.transaction(['rows', 'blobs'], 'readwrite')
      const kept = blob && change.objectStore('blobs').put(blob, row.id)
      await Promise.all([change.objectStore('rows').put(row), kept, change.done])
    },
    async change(row) {
      const change = db.transaction('rows', 'readwrite')
      // Dropped in another tab meanwhile, it stays dropped.
      if ((await change.store.getKey(row.order)) !== undefined) await change.store.put(row)
      await change.done
    },
    async drop(row) {
      const change = db.transaction(['rows', 'blobs'], 'readwrite')
      await Promise.all([change.objectStore('rows').delete(row.order), change.objectStore('blobs').delete(row.id), change.done])
    },
    some: (from, count) => db.getAll('rows', IDBKeyRange.lowerBound(from), count),
    blob: (id) => db.get('blobs', id),
  }
}

function inMemory(): Keep {
  const rows = new Map<number, Row>()
  const blobs = new Map<string, Blob>()
  return {
    lasts: false,
    all: () => Promise.resolve([...rows.values()]),
    add(row, blob) {
      rows.set(row.order, row)
      if (blob) blobs.set(row.id, blob)
      return Promise.resolve()
    },
    change(row) {
      if (rows.has(row.order)) rows.set(row.order, row)
      return Promise.resolve()
    },
    drop(row) {
      rows.delete(row.order)
      blobs.delete(row.id)
      return Promise.resolve()
    },
    some: (from, count) => Promise.resolve([...rows.values()].filter((row) => row.order >= from).sort((a, b) => a.order - b.order).slice(0, count)),
    blob: (id) => Promise.resolve(blobs.get(id)),
  }
}
