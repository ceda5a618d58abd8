import { readFileSync } from 'node:fs'
import { seededRandom } from '../../core/fill/draw'
import type { Form } from '../../core/form/definition'
import { applyEdits, type Edit } from '../../core/form/edits'
import { rulesOf, withRule, type Rule } from '../../core/form/rules'
import { listPlaces, type Place } from '../../core/form/walk'
import { optionsOf } from '../../core/form/rows'
import { riskKey } from '../../core/prove/acceptance'
import { prove } from '../../core/prove/prove'
import { parseCached } from '../../core/expressions/parse'
import { print } from '../../core/expressions/print'
import { nodesOf } from '../../core/expressions/tree'

// npm run prove:mutations [COUNT]: single slips in the clean demo forms, and how many of them the prover speaks of.
const TODAY = '2026-11-24'
const FORMS = ['haul_out', 'slipway_incident', 'after_launch'].map((name): Form =>
  JSON.parse(readFileSync(`demo/forms/${name}.form.json`, 'utf8')),
)
const next = seededRandom(7)
const pick = <T>(items: readonly T[]): T | undefined => items[Math.floor(next() * items.length)]

interface Slip {
  kind: string
  words: string
  form: Form
}
type Maker = (
  form: Form,
  places: readonly Place[],
  rules: readonly Rule[],
) => { words: string; edits: Edit[] } | null

const conditions = (rules: readonly Rule[]) =>
  rules.filter(r => ['shownWhen', 'required', 'route', 'validWhen'].includes(r.kind))
/** A rule with one stretch of its text put differently. */
function reworded(form: Form, rule: Rule, from: number, to: number, text: string) {
  const changed = rule.text.slice(0, from) + text + rule.text.slice(to)
  return { words: `${rule.id}: ${rule.text} → ${changed}`, edits: [withRule(form, rule, changed)] }
}

const SLIPS: Record<string, Maker> = {
  'another code of the same list': (form, places, rules) => {
    const found = conditions(rules).flatMap(rule =>
      nodesOf(parseCached(rule.text)).flatMap(node => {
        if (node.kind !== 'text') return []
        const codes = places
          .flatMap(p =>
            p.kind === 'question' && (p.node.type === 'choice' || p.node.type === 'choices')
              ? [optionsOf(form, p.node) ?? []]
              : [],
          )
          .find(rows => rows.some(r => r.code === node.value))
        const other = pick((codes ?? []).filter(r => r.code !== node.value))
        return other ? [reworded(form, rule, node.from, node.to, JSON.stringify(other.code))] : []
      }),
    )
    return pick(found) ?? null
  },
  'a code mistyped': (form, _, rules) => {
    const found = conditions(rules).flatMap(rule =>
      nodesOf(parseCached(rule.text)).flatMap(node => {
        const { from, to } = node
        if (node.kind === 'text') return [reworded(form, rule, from, to, JSON.stringify(`${node.value}e`))]
        return node.kind === 'name' ? [reworded(form, rule, from, to, `${node.name}s`)] : []
      }),
    )
    return pick(found) ?? null
  },
  'a condition turned round': (form, _, rules) => {
    const rule = pick(conditions(rules))
    return rule ? reworded(form, rule, 0, rule.text.length, `not(${rule.text})`) : null
  },
  'a number moved': (form, _, rules) => {
    const found = conditions(rules).flatMap(rule =>
      nodesOf(parseCached(rule.text)).flatMap(node =>
        node.kind === 'number'
          ? [reworded(form, rule, node.from, node.to, String(Number(node.value) * 10 + 1))]
          : [],
      ),
    )
    return pick(found) ?? null
  },
  'and for or': (form, _, rules) => {
    const found = conditions(rules).flatMap(rule =>
      nodesOf(parseCached(rule.text)).flatMap(node =>
        node.kind === 'and' || node.kind === 'or'
          ? [
              reworded(
                form,
                rule,
                node.from,
                node.to,
                print({ ...node, kind: node.kind === 'and' ? 'or' : 'and' }),
              ),
            ]
          : [],
      ),
    )
    return pick(found) ?? null
  },
  'an exit dropped': (form, places) => {
    const found = places.flatMap(p =>
      p.kind === 'section' && p.node.routes?.length ? p.node.routes.map((_, i) => ({ p, i })) : [],
    )
    const taken = pick(found)
    return taken && taken.p.kind === 'section'
      ? {
          words: `${taken.p.code}: route ${taken.i + 1} dropped`,
          edits: [
            {
              do: 'change',
              what: taken.p.address,
              set: { routes: taken.p.node.routes?.filter((_, i) => i !== taken.i) },
            },
          ],
        }
      : null
  },
  'a route to the wrong section': (form, places) => {
    const found = places.flatMap(p =>
      p.kind === 'section' ? (p.node.routes ?? []).map((route, i) => ({ p, i, route })) : [],
    )
    const taken = pick(found)
    const to = taken && pick(form.sections.filter(s => s.code !== taken.route.to))
    return taken && to && taken.p.kind === 'section'
      ? {
          words: `${taken.p.code}: route ${taken.i + 1} to ${to.code}`,
          edits: [
            {
              do: 'change',
              what: taken.p.address,
              set: {
                routes: taken.p.node.routes?.map((r, i) => (i === taken.i ? { ...r, to: to.code } : r)),
              },
            },
          ],
        }
      : null
  },
  'a neighbour’s rule copied': (form, places, rules) => {
    const shown = rules.filter(r => r.kind === 'shownWhen')
    const [rule, other] = [pick(shown), pick(shown)]
    return rule && other && rule.text !== other.text
      ? reworded(form, rule, 0, rule.text.length, other.text)
      : null
  },
  'a list row deleted': form => {
    const lists = (form.lists ?? []).filter(l => l.rows.length > 0)
    const list = pick(lists)
    const at = Math.floor(next() * (list?.rows.length ?? 0))
    return list
      ? {
          words: `${list.code}: row ${list.rows[at]?.code} deleted`,
          edits: [
            { do: 'change', what: `list/${list.code}`, set: { rows: list.rows.filter((_, i) => i !== at) } },
          ],
        }
      : null
  },
  'a question moved before its gate': (form, places, rules) => {
    const found = places.filter(
      p => p.kind === 'question' && rules.some(r => r.place === p && r.kind === 'shownWhen') && p.section > 0,
    )
    const place = pick(found)
    return place
      ? {
          words: `${place.code} moved to the first section`,
          edits: [{ do: 'move', what: place.address, into: `section/${form.sections[0]?.code}`, at: 0 }],
        }
      : null
  },
  'a rule lost': (form, _, rules) => {
    const rule = pick(rules.filter(r => r.kind === 'shownWhen'))
    return rule ? { words: `${rule.id} lost`, edits: [withRule(form, rule, null)] } : null
  },
  'required lost at a gate': (form, places, rules) => {
    const found = places.filter(
      p =>
        p.kind === 'question' &&
        'required' in p.node &&
        p.node.required === true &&
        rules.some(r => r.kind === 'shownWhen' && r.text.includes(p.code)),
    )
    const place = pick(found)
    return place
      ? {
          words: `${place.code} no longer required`,
          edits: [{ do: 'change', what: place.address, set: { required: null } }],
        }
      : null
  },
}

function slips(count: number): Slip[] {
  const made: Slip[] = []
  const seen = new Set<string>()
  for (let tries = 0; made.length < count && tries < count * 50; tries++) {
    const [form, kind] = [pick(FORMS), pick(Object.keys(SLIPS))]
    const slip = form && kind ? SLIPS[kind]?.(form, listPlaces(form), rulesOf(form)) : null
    if (!form || !kind || !slip || seen.has(`${form.code} ${slip.words}`)) continue
    seen.add(`${form.code} ${slip.words}`)
    const after = applyEdits(form, slip.edits).form
    if (JSON.stringify(after) !== JSON.stringify(form))
      made.push({ kind, words: `${form.code}: ${slip.words}`, form: after })
  }
  return made
}

const known = new Map(FORMS.map(form => [form.code, new Set(prove(form, TODAY).findings.map(riskKey))]))
const tally = new Map<string, { all: number; found: number }>()
const missed: string[] = []
for (const { kind, words, form } of slips(Number(process.argv[2] ?? 200))) {
  const told = prove(form, TODAY).findings.filter(f => !known.get(form.code)?.has(riskKey(f)))
  const row = tally.get(kind) ?? { all: 0, found: 0 }
  tally.set(kind, { all: row.all + 1, found: row.found + (told.length > 0 ? 1 : 0) })
  if (told.length === 0) missed.push(`${kind} · ${words}`)
}
const sum = [...tally.values()].reduce((a, b) => ({ all: a.all + b.all, found: a.found + b.found }), {
  all: 0,
  found: 0,
})
for (const [kind, { all, found }] of [...tally].sort()) console.log(`${kind.padEnd(36)} ${found} of ${all}`)
console.log(
  `${'all'.padEnd(36)} ${sum.found} of ${sum.all}\n\nNot spoken of:\n${missed.map(m => `  ${m}`).join('\n')}`,
)
