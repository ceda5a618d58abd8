import { z } from 'zod'
import type { Form } from '../core/form/definition'
import { rulesOf } from '../core/form/rules'
import type { ConflictPart, Finding, Verdict } from '../core/prove/finding'
import type { WalkOutcome } from '../core/prove/walks'

/** One of the rules (or places) that bring a finding about: where it stands, which of several it is, and what it says. */
const Part = z.strictObject({
  code: z.string(),
  address: z.string(),
  kind: z.string(),
  index: z.int(),
  text: z.string().nullable(),
})
/** A finding. `conflict` has the codes of what `parts` tells in full; `today` is the day for the witness where it is not the one of the proof. */
const FoundOutput = z.strictObject({
  code: z.string(),
  severity: z.enum(['fault', 'risk', 'advice']),
  at: z.string().nullable(),
  sentence: z.string(),
  conflict: z.array(z.string()),
  witness: z.record(z.string(), z.unknown()).nullable(),
  address: z.string().nullable(),
  rule: z.strictObject({ id: z.string(), kind: z.string(), index: z.int(), text: z.string() }).nullable(),
  parts: z.array(Part),
  /** What can't come into play for the same reason, without a finding of its own. */
  folded: z.array(z.strictObject({ code: z.string(), address: z.string() })),
  today: z.string().nullable(),
  mend: z.strictObject({ words: z.string(), edits: z.array(z.unknown()) }).nullable(),
})
/** What `prove --json` says of one form. */
export const FormOutput = z.strictObject({
  today: z.string(),
  decided: z.strictObject({
    rules: z.int(),
    byExample: z.int(),
    byProof: z.int(),
    undecided: z.int(),
  }),
  findings: z.array(FoundOutput),
  walks: z.array(z.strictObject({ code: z.string(), misses: z.array(z.string()) })).optional(),
})
/** What `prove --json` prints: of one form, or of each of several files. */
export const ProveOutput = z.union([
  FormOutput,
  z.strictObject({ files: z.array(FormOutput.extend({ file: z.string() })) }),
])

/** What `diff --json` prints: what one definition changes against another, thing by thing; empty where both say the same. */
export const DiffOutput = z.strictObject({
  changes: z.array(
    z.strictObject({
      act: z.enum(['added', 'deleted', 'moved', 'changed']),
      name: z.string(),
      address: z.string().nullable(),
      where: z.string(),
      parts: z.array(
        z.strictObject({ key: z.string(), words: z.string(), before: z.string(), after: z.string() }),
      ),
    }),
  ),
  /** What is done otherwise for somebody, with the fewest answers that show it, and what is not decided; all else is the same for everyone. */
  effects: z.array(
    z.strictObject({
      kind: z.enum(['asked', 'required', 'offered']),
      code: z.string(),
      address: z.string(),
      option: z.string().nullable(),
      outcome: z.enum(['differs', 'undecided']),
      sentence: z.string(),
      witness: z.record(z.string(), z.unknown()).nullable(),
      today: z.string(),
      was: z.boolean(),
      is: z.boolean(),
    }),
  ),
  /** What becomes of the promises that the first one keeps. */
  promises: z.array(
    z.strictObject({
      code: z.string(),
      outcome: z.enum(['kept', 'broken', 'untold', 'undecided']),
      sentence: z.string(),
      witness: z.record(z.string(), z.unknown()).nullable(),
      today: z.string(),
    }),
  ),
  /** Codes that mean something else than in the first one; certainly so, or only by their words. */
  meanings: z.array(
    z.strictObject({
      code: z.string(),
      address: z.string(),
      option: z.string().nullable(),
      sentence: z.string(),
      isCertain: z.boolean(),
    }),
  ),
  /** How much is the same for everyone: who is asked what, has to answer, and is offered what. */
  same: z.int(),
})

/** What is printed of a form that was proved. */
export function formOutput(
  form: Form,
  verdict: Verdict,
  walks: readonly WalkOutcome[],
  today: string,
): z.infer<typeof FormOutput> {
  const rules = rulesOf(form)
  const textOf = ({ address, kind, index }: ConflictPart) =>
    rules.find(r => r.place.address === address && r.kind === kind && r.index === index)?.text ?? null
  const found = (finding: Finding): z.infer<typeof FoundOutput> => {
    const { code, severity, at, sentence, conflict, witness, address, mend } = finding
    const rule = rules.find(r => r.id === finding.rule)
    return {
      code,
      severity,
      at,
      sentence,
      conflict: [...new Set(conflict.map(p => p.code))],
      witness,
      address,
      rule: rule ? { id: rule.id, kind: rule.kind, index: rule.index, text: rule.text } : null,
      parts: conflict.map(part => ({ ...part, text: textOf(part) })),
      folded: [...finding.folded],
      today: finding.today,
      mend,
    }
  }
  return {
    today,
    decided: verdict.tally,
    findings: verdict.findings.map(found),
    ...(walks.length > 0 ? { walks: walks.map(w => ({ code: w.walk.code, misses: w.misses })) } : {}),
  }
}
