// What the server says of variants and tables.
import { get, postText } from '../server/server'

export interface Table {
  columns: string[]
  rows: string[][]
}

/** Something that a column can fill. */
export interface Name {
  name: string
  kind: 'words' | 'picture' | 'role'
  says: string // what the project itself has there
}

export interface Variant {
  row: number // from 1
  name: string
  troubles: { column: string; says: string }[]
}

export interface Variants {
  table: Table | null
  /** what each column fills; empty: nothing */
  fills: string[]
  /** names that no column has */
  without: Name[]
  names: Name[]
  rows: Variant[]
  revision: number
  starts: Table // with a column for each name, and what the project has in a row
}

/** from: the first row that is told, from 0. */
export const variantsOf = (project: string, film: string, from: number) =>
  get<Variants>(`/api/projects/${project}/variants?film=${encodeURIComponent(film)}&from=${from}`)

export const framesOf = (project: string, film: string, revision: number) => (row: number, scene: number) =>
  `/api/projects/${project}/variants/${row}/frame.png?film=${encodeURIComponent(film)}&scene=${scene}&r=${revision}`

/** Reads what was pasted or opened. */
export const readTable = async (text: string) => (await postText<{ table: Table }>('/api/tables', text)).table
