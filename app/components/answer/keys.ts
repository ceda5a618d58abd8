import type { InjectionKey, Ref } from 'vue'
import type { Frame } from '#core/fill/fill'
import type { OfferedRow } from '#core/form/rows'
import type { Address } from '#core/form/walk'

/** How a file gets to where it is kept; the rehearsal keeps none. */
export interface FileTaker {
  take: (question: string, file: File) => Promise<{ file: string; name: string; bytes: number }>
}

/** Where a file that somebody gave before can be fetched; nowhere in the rehearsal. */
export type FileAddress = (file: string) => string

/** Where the rows of a long list are found: not all of it travels with the page. */
export interface RowFinder {
  find: (path: string, typed: string) => Promise<{ rows: OfferedRow[]; count: number }>
  /** A row that was chosen is known to the page from then on. */
  remember: (list: string, row: OfferedRow) => void
}

/** Why something is as it is, answered in the rehearsal. */
export type Explain = (address: Address, frame: Frame) => void

export const FILE_TAKER: InjectionKey<FileTaker> = Symbol('file taker')
export const FILE_ADDRESS: InjectionKey<FileAddress> = Symbol('file address')
/** Where a file that one has given in this turn can be fetched, also on another device; nowhere before there is a response. */
export const OWN_FILE_ADDRESS: InjectionKey<FileAddress> = Symbol('own file address')
export const ROW_FINDER: InjectionKey<RowFinder> = Symbol('row finder')
export const EXPLAIN: InjectionKey<Explain> = Symbol('explain')
/** What a party may do with each question, by code; everything is filled where nobody says otherwise. */
export const PARTY_ACCESS: InjectionKey<Ref<Record<string, 'reads' | 'fills'>>> = Symbol('party access')
/** The level of a heading inside what stands around it. */
export const HEADING_BELOW: InjectionKey<Ref<'h2' | 'h3' | 'h4'>> = Symbol('heading below')
