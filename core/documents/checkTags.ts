import { nearest } from '../expressions/near'
import { BOOLEAN, NUMBER, type ValueType } from '../expressions/types'
import type { Plan } from '../fill/planned'
import { standpointAtEnd, standpointInside, type RuleReading, type Standpoint } from '../form/scope'
import { itemMembers, optionsLooped } from './loopItems'
import { ITEM, loopOf } from './templateScope'
import type { Tag } from '../form/tags'

/** What is wrong with a tag as it names things of the form; `near` is the nearest right spelling of the whole tag’s source. */
export interface TagProblem {
  index: number
  sentence: string
  near: string | null
}

/** Where a tag stands: what it may name there, and what the loop around it lets be quoted as `item.…`; null for no loop. */
export interface TagStand {
  stand: Standpoint
  members: readonly string[] | null
}

/** Where each tag stands, by its number; what ends that was not begun ends nothing. */
export function standsOf(plan: Plan, tags: readonly Tag[]): TagStand[] {
  const around: TagStand[] = [{ stand: standpointAtEnd(plan.form), members: null }]
  return tags.map(tag => {
    const here = around.at(-1) ?? { stand: standpointAtEnd(plan.form), members: null }
    if (tag.is === 'end') {
      if (around.length > 1) around.pop()
      return around.at(-1) ?? here
    }
    if (tag.is === 'when') around.push(here)
    if (tag.is === 'each') around.push(insideOf(plan, tag.source, here))
    return here
  })
}

/** Inside of a loop; where what it goes over is not there, inside of what was meant: one error is told once. */
function insideOf(plan: Plan, written: string, here: TagStand): TagStand {
  const isThere = plan.groups.has(written) || plan.byCode.has(written)
  const source = isThere ? written : (nearLoop(plan, written, here.stand) ?? written)
  const group = plan.groups.get(source)?.place
  if (group) return { stand: standpointInside(group), members: itemMembers(null, []) }
  const node = plan.byCode.get(source)?.place.node
  const members = node ? itemMembers(node, optionsLooped(plan.form, node)) : []
  return { stand: here.stand, members }
}

/** Every error of what tags name and ask, with the nearest right name. */
export function checkTags(plan: Plan, tags: readonly Tag[]): TagProblem[] {
  const stands = standsOf(plan, tags)
  return tags.flatMap((tag, index): TagProblem[] => {
    const here = stands[index]
    if (!here) return []
    const found = problemOf(plan, tag, here)
    return found ? [{ index, ...found }] : []
  })
}

function problemOf(plan: Plan, tag: Tag, here: TagStand): Omit<TagProblem, 'index'> | null {
  if (tag.is === 'when') return problemRead(tag.source, plan.names.read(tag.source, here.stand, BOOLEAN))
  if (tag.is === 'each') return problemOfLoop(plan, tag.source, here)
  if (tag.is !== 'quote') return null
  const member = ITEM.exec(tag.source)?.[1]
  if (member !== undefined) return problemOfItem(member, here)
  const reading = plan.names.readQuote(tag.source, here.stand)
  return problemRead(tag.source, reading) ?? problemOfFormat(tag.format, reading.type)
}

function problemRead(source: string, { syntax, problems }: RuleReading): Omit<TagProblem, 'index'> | null {
  if (syntax) return { sentence: syntax.message, near: replaced(source, syntax) }
  const [first] = problems
  return first ? { sentence: first.sentence, near: replaced(source, first) } : null
}

const replaced = (
  source: string,
  { from, to, instead }: { from: number; to: number; instead: string | null },
): string | null => (instead === null ? null : source.slice(0, from) + instead + source.slice(to))

function problemOfLoop(plan: Plan, source: string, { stand }: TagStand): Omit<TagProblem, 'index'> | null {
  if (loopOf(plan, source, stand) !== null) return null
  const near = nearLoop(plan, source, stand)
  const isThere = plan.byCode.has(source) || plan.groups.has(source)
  const sentence = isThere
    ? `A loop goes over the entries of a repeating group, a grid, a ranking, or a multiple choice; “${source}” is none of these here.`
    : `There is no “${source}” to go over.`
  return { sentence, near }
}

/** What a loop can go over whose code is nearest to what was written. */
const nearLoop = (plan: Plan, source: string, stand: Standpoint): string | null =>
  nearest(
    source,
    [...plan.groups.keys(), ...plan.byCode.keys()].filter(code => loopOf(plan, code, stand) !== null),
  )

function problemOfItem(member: string, { members }: TagStand): Omit<TagProblem, 'index'> | null {
  if (members === null)
    return { sentence: '“item” stands for what a loop goes over: here is no loop.', near: null }
  if (members.includes(member)) return null
  const near = nearest(member, members)
  const sentence = `What this loop goes over has no “${member}”, but: ${members.join(', ')}.`
  return { sentence, near: near === null ? null : `item.${near}` }
}

/** Formats of dates and of amounts are refused of what is neither: it would be printed as it is. */
function problemOfFormat(format: string | null, { kind }: ValueType): Omit<TagProblem, 'index'> | null {
  const isDate = kind === 'date' || kind === 'dateTime' || kind === 'unknown'
  const isAmount = kind === NUMBER.kind || kind === 'context' || kind === 'unknown'
  if ((format === 'long date' || format === 'short date') && !isDate)
    return { sentence: `“${format}” is of a date, and this is none.`, near: null }
  if (format === 'money' && !isAmount)
    return { sentence: '“money” is of an amount, and this is none.', near: null }
  if (format === 'in words' && !isAmount)
    return { sentence: '“in words” is of a number, and this is none.', near: null }
  return null
}
