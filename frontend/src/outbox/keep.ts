/**
 * Where rows are kept: in IndexedDB, and for this page alone what the browser does not take there. A row that is in
 * neither is lost, so that nothing here gives up: a closed database is opened again, a full one is got round.
 */
import { openDB, type DBSchema, type IDBPDatabase } from 'idb'
import { nextOrder, type Row } from './rows'

const DATABASE = 'fidicula'
const VERSION = 1

interface Tables extends DBSchema {
  rows: { key: number; value: Row }
  blobs: { key: string; value: Blob }
}

export interface Keep {
  all: () => Promise<Row[]>
  /** Whether a reload finds it again. A row whose order another tab took in the same moment is given the next one. */
  add: (row: Row, blob?: Blob) => Promise<boolean>
  change: (row: Row) => Promise<void>
  drop: (row: Row) => Promise<void>
  /** Whether it is still there: another tab may have dropped it. */
  has: (row: Row) => Promise<boolean>
  /** So many rows at or after an order. */
  some: (from: number, count: number) => Promise<Row[]>
  blob: (id: string) => Promise<Blob | undefined>
}

export async function openKeep(name = DATABASE): Promise<Keep> {
  const inDatabase = makeDatabase(name)
  /** What IndexedDB refused; and what it could not drop, by its order. */
  const rows = new Map<number, Row>()
  const blobs = new Map<string, Blob>()
  const dropped = new Set<number>()

  async function all(): Promise<Row[]> {
    return merged(await inDatabase((db) => db.getAll('rows')).catch(() => []))
  }
  function merged(there: Row[]): Row[] {
    return [...there.filter((row) => !rows.has(row.order) && !dropped.has(row.order)), ...rows.values()].sort((a, b) => a.order - b.order)
  }
  await inDatabase(() => Promise.resolve()).catch(() => undefined)

  return {
    all,
    async add(row, blob) {
      for (;;) {
        try {
          await inDatabase((db) => addTo(db, row, blob))
          return true
        } catch (error) {
          if (isTaken(error)) row.order = nextOrder()
          else break
        }
      }
      rows.set(row.order, row)
      if (blob) blobs.set(row.id, blob)
      return false
    },
    async change(row) {
      if (rows.has(row.order)) rows.set(row.order, row)
      else await inDatabase((db) => changeIn(db, row)).catch(() => void rows.set(row.order, row))
    },
    async drop(row) {
      blobs.delete(row.id)
      if (rows.delete(row.order) && !(await inDatabase((db) => db.getKey('rows', row.order)).catch(() => undefined))) return
      await inDatabase((db) => dropFrom(db, row)).catch(() => void dropped.add(row.order))
    },
    async has(row) {
      if (rows.has(row.order)) return true
      return inDatabase((db) => db.getKey('rows', row.order)).then((key) => key !== undefined && !dropped.has(row.order), () => false)
    },
    some: (from, count) =>
      rows.size || dropped.size
        ? all().then((found) => found.filter((row) => row.order >= from).slice(0, count))
        : inDatabase((db) => db.getAll('rows', IDBKeyRange.lowerBound(from), count)).catch(() => []),
    async blob(id) {
      return blobs.get(id) ?? inDatabase((db) => db.get('blobs', id)).catch(() => undefined)
    },
  }
}

type InDatabase = <Found>(run: (db: IDBPDatabase<Tables>) => Promise<Found>) => Promise<Found>

/** Runs in the database, which is opened when it is asked for, and once more where the browser has closed it. */
function makeDatabase(name: string): InDatabase {
  let opened: Promise<IDBPDatabase<Tables>> | null = null
  function open(): Promise<IDBPDatabase<Tables>> {
    const mine = (opened ??= openDB<Tables>(name, VERSION, {
      upgrade(db) {
        db.createObjectStore('rows', { keyPath: 'order' })
        db.createObjectStore('blobs')
      },
      blocking(_from, _to, event) {
        // Another page wants to change it, or to take it away: it is opened again when it is asked for.
        ;(event.target as IDBDatabase).close()
        if (opened === mine) opened = null
      },
      terminated() {
        if (opened === mine) opened = null
      },
    }))
    mine.catch(() => {
      if (opened === mine) opened = null
    })
    return mine
  }
  return async (run) => {
    const mine = open()
    try {
      return await run(await mine)
    } catch (error) {
      if (!(error instanceof DOMException) || error.name !== 'InvalidStateError') throw error
      if (opened === mine) opened = null
      return run(await open())
    }
  }
}

/** Only the row of another tab can stand under an order that is new here. */
function isTaken(error: unknown): boolean {
  return error instanceof DOMException && error.name === 'ConstraintError'
}

async function addTo(db: IDBPDatabase<Tables>, row: Row, blob: Blob | undefined): Promise<void> {
  const change = db.transaction(['rows', 'blobs'], 'readwrite')
  const kept = blob && change.objectStore('blobs').put(blob, row.id)
  await Promise.all([change.objectStore('rows').add(row), kept, change.done])
}

async function changeIn(db: IDBPDatabase<Tables>, row: Row): Promise<void> {
  const change = db.transaction('rows', 'readwrite')
  // Dropped in another tab meanwhile, it stays dropped.
  if ((await change.store.getKey(row.order)) !== undefined) await change.store.put(row)
  await change.done
}

async function dropFrom(db: IDBPDatabase<Tables>, row: Row): Promise<void> {
  const change = db.transaction(['rows', 'blobs'], 'readwrite')
  await Promise.all([change.objectStore('rows').delete(row.order), change.objectStore('blobs').delete(row.id), change.done])
}
