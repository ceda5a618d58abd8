import type { Form } from '../../core/form/definition'
import { applyEdits, type Edit } from '../../core/form/edits'
import { rulesOf, withRule, type Rule } from '../../core/form/rules'
import { listPlaces } from '../../core/form/walk'

/** So many edits of one rule each, every edit on top of the last; `promises`: only promises are edited. */
export function editRules(form: Form, count: number, promises: boolean): Edit[] {
  const edits: Edit[] = []
  let latest = form
  for (let k = 0; k < count; k++) {
    const rules = rulesOf(latest, listPlaces(latest)).filter(
      r => (r.kind === 'promise') === promises && changed(r) !== null,
    )
    const rule = rules[Math.floor((k * rules.length) / count)]
    if (!rule) throw new Error('There is no rule to edit.')
    const edit = withRule(latest, rule, changed(rule) ?? '')
    latest = applyEdits(latest, [edit]).form
    edits.push(edit)
  }
  return edits
}

/** The text of a rule with its number one higher, or with yes and no exchanged; null where it has neither. */
function changed({ text, kind }: Rule): string | null {
  if (kind === 'value' || kind === 'default') return null
  const higher = text.replace(/(?<![\w."-])(\d+)(?![\w."-])/, n => String(Number(n) + 1))
  if (higher !== text) return higher
  const turned = text.replace(/\b(?:true|false)\b/, word => String(word !== 'true'))
  return turned === text ? null : turned
}
