import type { Plan } from '../../fill/planned'
import type { Form, Item } from '../../form/definition'
import { optionsOf } from '../../form/rows'
import { ExpressionError, parseCached } from '../../expressions/parse'
import { namesIn } from '../../expressions/tree'
import { rulesAt } from '../../form/rules'
import { isSameJson } from '../../form/sameJson'
import type { Place } from '../../form/walk'
import { without } from '../../parties/nodeKeys'
import type { Rounding, SharedAnswers } from './versionRules'

/** Keys of a question or group that don’t change what its answer means: words, layout, and what decides whether and how it is asked. */
const ASIDE: ReadonlySet<string> = new Set([
  ...['label', 'title', 'help', 'requiredMessage', 'patternMessage', 'messages', 'span', 'indent', 'under'],
  ...[
    'shownWhen',
    'required',
    'readOnly',
    'default',
    'validWhen',
    'skips',
    'narrowedBy',
    'atLeast',
    'atMost',
  ],
  ...['table', 'officeOnly', 'privateTo'],
])
/** The same of an option; its label counts where rules ask for labels. */
const ASIDE_OF_OPTION: ReadonlySet<string> = new Set(['shownWhen', 'picture', 'help'])
const WITH_LABEL: ReadonlySet<string> = new Set([...ASIDE_OF_OPTION, 'label'])

/** The answers that two versions of a form share, and a form that asks for them and for nothing else. */
export class BothVersions implements SharedAnswers {
  private readonly used = new Map<string, Item>()
  private readonly blanks = new Map<string, string>()
  private readonly values = new Map<string, Item>()
  private count = 0
  private readonly asksForLabels: boolean

  constructor(
    private readonly before: Plan,
    private readonly after: Plan,
  ) {
    const texts = [before, after].flatMap(({ places }) => places.flatMap(p => rulesAt(p).map(r => r.text)))
    this.asksForLabels = texts.some(text => text.includes('label'))
  }

  use(code: string): boolean {
    if (this.used.has(code)) return true
    const [was, is] = [placeIn(this.before, code), placeIn(this.after, code)]
    const place = is ?? was
    if (!place || (was && is && !this.isAlike(was, is))) return false
    if (was?.kind === 'group' && !restsOnItself(this.before, was)) return false
    if (is?.kind === 'group' && !restsOnItself(this.after, is)) return false
    const item = place.kind === 'group' ? place.node : this.asked(place.node, code)
    if (!item) return false
    this.used.set(code, item)
    return true
  }

  optionsOf(code: string): readonly string[] {
    const codes = [this.before, this.after].flatMap(plan => [
      ...(plan.byCode.get(code)?.offer?.rows.keys() ?? []),
    ])
    return [...new Set(codes)]
  }

  blanked(code: string): string {
    const known = this.blanks.get(code) ?? this.free()
    this.blanks.set(code, known)
    return known
  }

  keep(text: string, rounding: Rounding): string {
    const key = `${text} ${rounding.decimals ?? ''} ${rounding.currency ?? ''}`
    const known = this.values.get(key)
    if (known) return known.code
    const code = this.free()
    this.values.set(key, { kind: 'question', type: 'value', code, label: code, value: text, ...rounding })
    return code
  }

  /** A code that neither version uses. */
  private free(): string {
    const isTaken = (code: string) =>
      [this.before, this.after].some(plan => plan.names.placeOf(code) !== undefined)
    do this.count += 1
    while (isTaken(`told_${this.count}`))
    return `told_${this.count}`
  }

  /** Whether an answer means the same in both; of a choice also where only its options differ. */
  private isAlike(was: Place, is: Place): boolean {
    if (was.kind === 'group' || is.kind === 'group')
      return isSameJson(without(was.node, ASIDE), without(is.node, ASIDE)) && this.areListsAlike()
    const aside = this.asksForLabels ? ASIDE_OF_OPTION : WITH_LABEL
    const [one, other] = [shapeOf(was.node, aside), shapeOf(is.node, aside)]
    if (!areOptionsAlike(was.node, is.node, aside)) return false
    const isList = 'list' in was.node && was.node.list !== undefined
    return isSameJson(one, other) && (!isList || this.areListsAlike())
  }

  private areListsAlike = (): boolean => isSameJson(this.before.form.lists ?? [], this.after.form.lists ?? [])

  /** A question as it is asked of nobody in particular: always, without having to be answered. */
  private asked(node: Place['node'], code: string): Item | null {
    if (!('type' in node) || node.type === 'value') return null
    const bare: Record<string, unknown> = { ...without<object>(node, ASIDE) }
    if ('options' in node && node.options) bare.options = this.allOptions(code)
    // The shape is that of the question: keys were left out that may be.
    return { label: code, ...bare } as Item
  }

  private allOptions(code: string): object[] {
    const rows = [this.before, this.after].flatMap(({ form, byCode }) => {
      const node = byCode.get(code)?.place.node
      return node?.type === 'choice' || node?.type === 'choices' ? (optionsOf(form, node) ?? []) : []
    })
    const byOption = new Map(rows.map(row => [row.code, without(row, ASIDE_OF_OPTION)]))
    return [...byOption.values()]
  }

  /** The form that asks for all that was used, with the calculated values and with promises that both versions do the same. */
  form(promises: Form['promises']): Form {
    const blanks = [...this.blanks.values()].map((code): Item => ({
      ...{ kind: 'question', type: 'yesNo', code, label: code },
    }))
    const lists = this.after.form.lists ?? this.before.form.lists
    return {
      ...{ tobbin: 2, code: 'both', title: 'Both' },
      sections: [
        {
          code: this.free(),
          title: 'All',
          items: [...this.used.values(), ...blanks, ...this.values.values()],
        },
      ],
      ...(lists ? { lists } : {}),
      ...(promises ? { promises } : {}),
    }
  }

  /** What was left blank on purpose in an example of that form. */
  blankedIn = (found: Readonly<Record<string, unknown>>): string[] =>
    [...this.blanks].flatMap(([code, blank]) => (found[blank] === true ? [code] : []))

  isAsked = (code: string): boolean => this.used.has(code)
}

/** Whether the rules of a group and inside of it ask for nothing outside of it, which would mean something else in a form that asks for everything, or be unknown there. */
function restsOnItself(plan: Plan, group: Place): boolean {
  const inside = plan.places.filter(p => p.groups.some(g => g.code === group.code))
  const own = new Set([ROW, group.code, ...inside.map(p => p.code)])
  return [group, ...inside].flatMap(rulesAt).every(({ text }) => namesOf(text).every(name => own.has(name)))
}
/** What the rules that narrow a list call its rows. */
const ROW = 'row'
/** The names in a rule; none in one that can’t be read, which is the same wherever it stands. */
function namesOf(text: string): readonly string[] {
  try {
    return namesIn(parseCached(text))
  } catch (error) {
    if (error instanceof ExpressionError) return []
    throw error
  }
}

const placeIn = (plan: Plan, code: string): Place | undefined =>
  (plan.byCode.get(code) ?? plan.groups.get(code))?.place

/** What an answer of a question may be and means, without its words. */
function shapeOf(node: Place['node'], aside: ReadonlySet<string>): Record<string, unknown> {
  const shape: Record<string, unknown> = { ...without<object>(node, ASIDE) }
  if (!('options' in node) || !Array.isArray(node.options)) return shape
  // Which of its options a choice has in a version is told by conditions.
  if ('type' in node && node.type === 'choice') delete shape.options
  else shape.options = node.options.map(o => without(o, aside))
  return shape
}

/** Whether the options that two questions have in common mean the same. */
function areOptionsAlike(was: Place['node'], is: Place['node'], aside: ReadonlySet<string>): boolean {
  const optionsIn = (node: Place['node']) =>
    'options' in node && Array.isArray(node.options) ? node.options : []
  const before = new Map(optionsIn(was).map(o => [o.code, o]))
  return optionsIn(is).every(option => {
    const other = before.get(option.code)
    return !other || isSameJson(without(other, aside), without(option, aside))
  })
}
