import type { Finding, ConflictPart } from '../finding'

/** Who reads facts, and from whom. */
interface Reader {
  code: string
  needs?: readonly string[]
}

/**
 * What checks have established about a form, by the code of the check, for others to rest on. A check reads what it says it needs, and
 * nothing else: so the order in which checks run follows from what they say.
 */
export class Facts {
  private readonly established = new Map<string, Map<string | number, readonly ConflictPart[]>>()
  private readonly left = new Map<string, Finding[]>()
  private reader: Reader | null = null

  /** From here on it is this check that establishes and reads; null: whoever reads what all checks have established. */
  readAs(reader: Reader | null) {
    this.reader = reader
  }

  /** Does something that may read what all checks have established so far. */
  readingAll<T>(work: () => T): T {
    const { reader } = this
    this.reader = null
    try {
      return work()
    } finally {
      this.reader = reader
    }
  }

  /** Establishes a fact in the name of the check that runs: something by its place or rule, with the rules that make it so. */
  establish(key: string | number, conflict: readonly ConflictPart[] = []) {
    const code = this.reader?.code ?? ''
    const known = this.established.get(code) ?? new Map<string | number, readonly ConflictPart[]>()
    this.established.set(code, known.set(key, conflict))
  }

  /** Whether one of some checks has established something. @throws Error when the check that runs does not say that it needs them */
  has(codes: readonly string[], key: string | number): boolean {
    return codes.some(code => this.read(code)?.has(key))
  }

  /** The conflicts of all that some checks have established. */
  conflicts(codes: readonly string[]): (readonly ConflictPart[])[] {
    return codes.flatMap(code => [...(this.read(code)?.values() ?? [])])
  }

  /** The rules for which some checks have established something. */
  conflictsAt(codes: readonly string[], key: string | number): readonly ConflictPart[] {
    return codes.flatMap(code => this.read(code)?.get(key) ?? [])
  }

  private read(code: string) {
    this.allow(code)
    return this.established.get(code)
  }

  /** Leaves a finding to the check whose code it bears. */
  leave(finding: Finding) {
    this.left.set(finding.code, [...(this.left.get(finding.code) ?? []), finding])
  }

  /** What a check has left to the one that runs. */
  leftBy(code: string): readonly Finding[] {
    this.allow(code)
    return this.left.get(this.reader?.code ?? '') ?? []
  }

  private allow(code: string) {
    const { reader } = this
    if (reader === null || reader.code === code || reader.needs?.includes(code)) return
    throw new Error(
      `The check “${reader.code}” reads what “${code}” established and does not say that it needs it.`,
    )
  }
}
