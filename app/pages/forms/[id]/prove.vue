<script setup lang="ts">
import { riskKey } from '#core/prove/acceptance'
import { collides, isMiss, type Finding, type Severity } from '#core/prove/finding'
import { readableDate } from '#core/expressions/dates'
import { RULE_WORDS, rulesOf, type RuleKind } from '#core/form/rules'
import { describeResponse } from '#core/fill/describeResponse'
import { placeName } from '#core/form/walk'

const draft = useDraft()
const findings = useFindings()
const view = ref<'findings' | 'promises' | 'walks'>('findings')
const VIEWS = [
  { key: 'findings', words: 'Findings', count: () => all.value.length },
  { key: 'promises', words: 'Promises', count: () => draft.form?.promises?.length ?? 0 },
  { key: 'walks', words: 'Walks', count: () => draft.form?.walks?.length ?? 0 },
] as const
const weight = ref<Severity | 'accepted' | 'all'>('all')
/** Findings stand together by where they are, or by what kind they are. */
const grouped = ref<'place' | 'kind'>('place')
const wanted = ref('')
const section = ref<number | 'all'>('all')
const chosen = ref(0)
const list = useTemplateRef('list')

const all = computed(() => findings.verdict?.findings ?? [])
const sectionOf = (f: Finding) => draft.places.find(p => p.address === f.address)?.section ?? -1
const weightOf = (f: Finding) => (findings.accepted.has(f) ? 'accepted' : f.severity)
const groupOf = (f: Finding): string =>
  grouped.value === 'kind'
    ? f.code
    : (draft.form?.sections[sectionOf(f)]?.title ?? 'The form, its lists and turns')
const hits = (f: Finding) =>
  `${f.sentence} ${f.at ?? ''} ${f.code}`.toLowerCase().includes(wanted.value.trim().toLowerCase())
/** In groups, the worst first within each; accepted ones last. */
const shown = computed(() => {
  const found = all.value.filter(
    f =>
      (weight.value === 'all' || weightOf(f) === weight.value) &&
      (section.value === 'all' || sectionOf(f) === section.value) &&
      hits(f),
  )
  const groups = [...new Set(found.map(groupOf))]
  if (grouped.value === 'place') groups.sort((a, b) => place(a) - place(b))
  return groups.flatMap(g =>
    found
      .filter(f => groupOf(f) === g)
      .toSorted((a, b) => Number(findings.accepted.has(a)) - Number(findings.accepted.has(b))),
  )
})
const place = (group: string) => draft.form?.sections.findIndex(s => s.title === group) ?? -1
const open = computed(() => shown.value[Math.min(chosen.value, shown.value.length - 1)])
const weights = computed(() => [
  { key: 'fault' as const, mark: '✕', words: 'Faults', count: findings.faults.length },
  { key: 'risk' as const, mark: '▲', words: 'Risks', count: findings.risks.length },
  { key: 'advice' as const, mark: '●', words: 'Advice', count: findings.advice.length },
  ...(findings.accepted.size > 0
    ? [{ key: 'accepted' as const, mark: '✓', words: 'Accepted', count: findings.accepted.size }]
    : []),
])
const bySection = computed(() =>
  (draft.form?.sections ?? []).map((s, i) => ({
    i,
    title: s.title,
    count: all.value.filter(f => sectionOf(f) === i).length,
  })),
)
const tally = computed(() => findings.verdict?.tally)
const head = computed(() => {
  if (!findings.isWhole)
    return all.value.length > 0 ? `Proving … ${all.value.length} found so far` : 'Proving …'
  const [f, r] = [findings.faults.length, findings.risks.length]
  if (f > 0) return `Not ready: ${f === 1 ? 'one fault' : `${f} faults`}`
  return r > 0 ? `No fault; ${r === 1 ? 'one risk' : `${r} risks`} to accept` : 'Every rule holds together'
})
const rules = computed(() => (draft.form ? rulesOf(draft.form, draft.places) : []))
const parts = computed(() =>
  (open.value?.conflict ?? []).map(part => {
    const place = draft.places.find(p => p.address === part.address)
    const rule =
      place &&
      rules.value.find(
        r => r.place.address === place.address && r.kind === part.kind && r.index === part.index,
      )
    const words = part.kind === 'place' ? '' : RULE_WORDS[part.kind as RuleKind]
    return {
      place,
      rule,
      words,
      name:
        part.kind === 'promise'
          ? 'All of the form'
          : place
            ? `${place.number} ${placeName(place)}`
            : part.code,
      always: part.kind === 'required' && !rule,
      route: part.kind === 'route' && !rule,
    }
  }),
)
const rehearsal = useRehearsal()
/** The witness as it reads: what it answers, and blanks that it asks for. */
const answers = computed(() => {
  const plan = rehearsal.plan
  const witness = open.value?.witness
  if (!plan || !witness) return []
  let last = ''
  return describeResponse(plan, witness, rehearsal.today)
    .filter(l => l.state === 'answered' && l.type !== 'value')
    .map(l => {
      const entry = l.path.slice(0, l.path.lastIndexOf('.') + 1)
      const isFirst = entry !== last
      last = entry
      return {
        path: l.path,
        name: `${draft.places.find(p => p.code === l.code)?.number ?? ''} ${l.label}`,
        value: l.text,
        entry: isFirst ? entryName(entry) : '',
      }
    })
})
/** `people[1].` as it reads: “Person 2”. */
const entryName = (path: string) =>
  [...path.matchAll(/(\w+)\[(\d+)\]/g)]
    .map(
      ([, code, index]) =>
        `${draft.places.flatMap(p => (p.code === code ? placeName(p) : []))[0] ?? code} ${Number(index) + 1}`,
    )
    .join(', ')

const rows =
  useTemplateRef<
    { is: (finding: Finding) => boolean; show: () => Promise<void>; mend: () => void; ask: () => void }[]
  >('rows')
const ACTS: Record<string, 'show' | 'mend' | 'ask'> = { Enter: 'show', m: 'mend', a: 'ask' }
function keys(event: KeyboardEvent) {
  const act =
    event.target instanceof HTMLElement &&
    event.target.getAttribute('role') === 'listitem' &&
    !event.ctrlKey &&
    !event.metaKey &&
    !event.altKey
      ? ACTS[event.key]
      : undefined
  if (act) {
    event.preventDefault()
    const finding = open.value
    void (finding && rows.value?.find(r => r.is(finding))?.[act]())
    return
  }
  if (event.key !== 'ArrowDown' && event.key !== 'ArrowUp') return
  event.preventDefault()
  chosen.value = Math.max(
    0,
    Math.min(shown.value.length - 1, chosen.value + (event.key === 'ArrowDown' ? 1 : -1)),
  )
  void nextTick(() => list.value?.querySelector<HTMLElement>('.item.chosen')?.focus())
}
async function rehearse() {
  if (!open.value?.witness) return
  rehearsal.show(open.value)
  draft.select(open.value.address)
  await navigateTo(`/forms/${draft.id}/write`)
}
</script>

<template>
  <div
    class="prove"
    :class="{ plain: view !== 'findings' }"
  >
    <aside class="side">
      <nav
        class="views"
        aria-label="Prove"
      >
        <button
          v-for="v in VIEWS"
          :key="v.key"
          class="pick"
          :aria-pressed="view === v.key"
          @click="view = v.key"
        >
          <span>{{ v.words }}</span><b class="num">{{ v.count() }}</b>
        </button>
      </nav>
      <template v-if="view === 'findings'">
        <h2>By weight</h2>
        <button
          v-for="w in weights"
          :key="w.key"
          class="pick"
          :aria-pressed="weight === w.key"
          @click="weight = weight === w.key ? 'all' : w.key"
        >
          <span :class="w.key">{{ w.mark }} {{ w.words }}</span
          ><b class="num">{{ w.count }}</b>
        </button>
        <h2>By place</h2>
        <button
          v-for="s in bySection"
          :key="s.i"
          class="pick"
          :aria-pressed="section === s.i"
          @click="section = section === s.i ? 'all' : s.i"
        >
          <span>{{ s.i + 1 }} {{ s.title }}</span
          ><b class="num">{{ s.count }}</b>
        </button>
      </template>
      <h2>What was decided</h2>
      <template v-if="tally">
        <p>{{ tally.rules }} {{ tally.rules === 1 ? 'rule' : 'rules' }} read</p>
        <p class="proven">✓ {{ tally.byExample }} shown by an example</p>
        <p class="proven">✓ {{ tally.byProof }} proved impossible</p>
        <p>{{ tally.undecided }} undecided</p>
        <p class="quiet small">in {{ Math.max(1, Math.round(findings.milliseconds)) }} ms, in this browser</p>
      </template>
    </aside>
    <PromisesPane
      v-if="view === 'promises'"
      class="middle"
    />
    <WalksPane
      v-else-if="view === 'walks'"
      class="middle"
    />
    <section
      v-else
      class="middle"
      aria-label="Findings"
    >
      <div class="head">
        <h2>{{ head }}</h2>
        <p class="quiet">
          Every rule is decided for all possible answers. A fault stops the release; a risk can be accepted
          with a reason.
        </p>
        <p
          v-if="findings.broken"
          class="fault"
          role="alert"
        >
          {{ findings.broken }}
        </p>
        <div
          v-if="all.length > 0"
          class="row-flex tools"
        >
          <input
            v-model="wanted"
            class="field"
            type="search"
            placeholder="Filter by words, code or kind"
            aria-label="Filter the findings"
          />
          <span
            class="widths"
            role="radiogroup"
            aria-label="Group the findings"
            ><button
              role="radio"
              :aria-checked="grouped === 'place'"
              @click="grouped = 'place'"
            >
              by place</button
            ><button
              role="radio"
              :aria-checked="grouped === 'kind'"
              @click="grouped = 'kind'"
            >
              by kind
            </button></span
          >
          <span class="spread" /><span class="small quiet keys-line"
            >↑ ↓ travel · Enter shows · M mends · A accepts</span
          >
        </div>
      </div>
      <div
        ref="list"
        role="list"
        aria-label="Findings"
        class="list"
        @keydown="keys"
      >
        <template
          v-for="(f, i) in shown"
          :key="riskKey(f)"
        >
          <h3
            v-if="i === 0 || groupOf(f) !== groupOf(shown[i - 1] ?? f)"
            class="group"
            role="presentation"
          >
            {{ groupOf(f) }}
          </h3>
          <div
            class="item"
            :class="[weightOf(f), { chosen: open === f }]"
            role="listitem"
            :tabindex="open === f ? 0 : -1"
            :aria-current="open === f ? 'true' : undefined"
            @click="chosen = i"
          >
            <FindingRow
              ref="rows"
              :finding="f"
              :chosen="open === f"
            />
          </div>
        </template>
      </div>
      <p
        v-if="findings.isWhole && shown.length === 0"
        class="quiet none"
      >
        {{
          all.length === 0
            ? 'No fault, no risk, no advice. The form can be released.'
            : 'Nothing of this kind here.'
        }}
      </p>
    </section>
    <aside
      v-if="open && view === 'findings'"
      class="evidence"
      aria-label="Evidence"
    >
      <h2>Evidence</h2>
      <p class="quiet small">
        {{
          parts.length < 2
            ? open?.conflict[0]?.kind === 'promise'
              ? 'The promise'
              : 'Where it stands'
            : open && collides(open)
              ? 'The smallest set of rules that collide'
              : 'The rules concerned'
        }}
      </p>
      <div class="sheet parts">
        <div
          v-for="(p, i) in parts"
          :key="i"
          class="part"
        >
          <p class="small quiet">{{ p.name }}</p>
          <RuleSentence
            v-if="p.rule"
            :words="p.words"
            :text="p.rule.text"
          />
          <p
            v-else-if="p.always"
            class="small"
          >
            An answer is always required
          </p>
          <p
            v-else-if="p.route"
            class="small"
          >
            A route that is always taken
          </p>
        </div>
      </div>
      <template v-if="open.witness">
        <h2>{{ isMiss(open) ? 'Nearest miss' : 'Witness' }}</h2>
        <p
          v-if="open.today"
          class="small"
        >
          On {{ readableDate(open.today) }}
        </p>
        <p class="quiet small">
          {{
            isMiss(open)
              ? 'The fewest answers that lead to its place, where it stays hidden'
              : 'The fewest answers that lead there'
          }}
        </p>
        <dl
          v-if="answers.length > 0"
          class="sheet answers"
        >
          <div
            v-for="a in answers"
            :key="a.path"
          >
            <dt>
              <span
                v-if="a.entry"
                class="entry small quiet"
                >{{ a.entry }}</span>{{ a.name }}
            </dt>
            <dd>{{ a.value }}</dd>
          </div>
        </dl>
        <p
          v-else
          class="small"
        >
          No answer is needed: it stands where the form begins.
        </p>
        <button
          class="action"
          @click="rehearse"
        >
          Rehearse these answers
        </button>
      </template>
    </aside>
  </div>
</template>

<style scoped>
.prove {
  display: grid;
  grid-template-columns: 300px minmax(0, 1fr) 400px;
  height: 100%;
}
.prove.plain {
  grid-template-columns: 300px minmax(0, 1fr);
}
.plain .middle {
  border-right: 0;
  max-width: none;
}
.views {
  display: grid;
  margin-bottom: 6px;
}
.side h2,
.evidence h2 {
  font-size: 15px;
}
.entry {
  display: block;
  padding-bottom: 2px;
}
.side,
.evidence {
  padding: 16px 20px;
  overflow-y: auto;
  display: grid;
  gap: 8px;
  align-content: start;
}
.side h2:not(:first-child),
.evidence h2:not(:first-child) {
  margin-top: 14px;
}
.middle {
  background: var(--paper);
  border: 1px solid var(--line);
  border-width: 0 1px;
  overflow-y: auto;
}
.head {
  padding: 18px 24px;
  display: grid;
  gap: 4px;
  border-bottom: 1px solid var(--line);
}
.pick {
  display: flex;
  justify-content: space-between;
  border: 0;
  background: none;
  padding: 4px 6px;
  margin: 0 -6px;
  cursor: pointer;
  text-align: left;
}
.pick[aria-pressed='true'] {
  background: var(--soft);
}
.item {
  padding: 12px 20px;
  border-bottom: 1px solid var(--line);
  cursor: pointer;
}
.item.chosen {
  background: var(--soft);
  box-shadow: inset 0 0 0 1px var(--slate);
}
.item.chosen.fault {
  background: var(--madder-wash);
  box-shadow: inset 0 0 0 1px var(--madder);
  color: var(--ink);
}
.parts .part {
  padding: 12px 16px;
  border-bottom: 1px solid var(--line);
}
.parts .part:last-child {
  border-bottom: 0;
}
.answers {
  padding: 4px 16px;
}
.answers div {
  display: flex;
  justify-content: space-between;
  gap: 12px;
  align-items: end;
  padding: 8px 0;
  border-bottom: 1px dotted var(--line);
}
.answers div:last-child {
  border-bottom: 0;
}
dd {
  font-weight: 700;
  text-align: right;
}
.group {
  font-size: 13px;
  padding: 10px 20px 4px;
  color: var(--slate);
  font-weight: 600;
}
.tools {
  margin-top: 8px;
}
.tools .field {
  width: 250px;
}
.none {
  padding: 32px 24px;
}
.evidence .action {
  justify-self: start;
}
@media (max-width: 900px) {
  .prove {
    grid-template-columns: 1fr;
    height: auto;
  }
}
</style>
