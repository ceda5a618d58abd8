import Papa from 'papaparse'

/** Somebody as a pasted list names them. */
export interface NamedAddress {
  name: string
  address: string
}

const ADDRESS = /[^\s<>"(),;]+@[^\s<>"(),;]+\.[^\s<>"(),;]+/

/**
 * Reads a list of people, one on each line: “Oda Fisher, oda@wherry.example”, “Oda Fisher <oda@wherry.example>”, an address alone, or the
 * cells of a table (RFC 4180, or split by tabs or semicolons), in which the first cell that is no address is the name.
 * @returns the people, each address once, and the lines (from 1 on) that have none
 */
export function readPeople(text: string): { people: NamedAddress[]; unread: number[] } {
  const { data } = Papa.parse<string[]>(text.trim(), { delimiter: delimiterOf(text) })
  const people = new Map<string, NamedAddress>()
  const unread: number[] = []
  for (const [at, cells] of data.entries()) {
    const found = ADDRESS.exec(cells.join(' '))
    const address = found?.[0].toLowerCase()
    if (address === undefined) {
      // The first line of a table says what its columns are.
      if (cells.some(c => c.trim() !== '') && (at > 0 || data.length === 1)) unread.push(at + 1)
      continue
    }
    const name = cells.map(c => c.replace(ADDRESS, '').replace(/[<>"]/g, '').trim()).find(Boolean) ?? ''
    if (!people.has(address)) people.set(address, { name, address })
  }
  return { people: [...people.values()], unread }
}

function delimiterOf(text: string): string {
  if (text.includes('\t')) return '\t'
  return text.includes(';') ? ';' : ','
}
