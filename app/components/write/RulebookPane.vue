<script setup lang="ts">
import type { Severity } from '#core/prove/finding'
import { SEVERITY_MARKS } from '~/theme/severityMarks'
import { sentenceText } from '#core/expressions/sentence'
import { ruleSentence } from '#core/form/names'
import { isCondition, RULE_WORDS, rulesOf, withRule, type Rule, type RuleKind } from '#core/form/rules'
import { placeName } from '#core/form/walk'
import type { Edit } from '#core/form/edits'

/** Every rule of the form in one table: where, effect, sentence, status; sorted, filtered, searched, edited in place, removed or moved in bulk. */
const draft = useDraft()
const findings = useFindings()
const search = ref('')
const effect = ref<RuleKind | ''>('')
const status = ref<'' | 'fault' | 'risk' | 'fine'>('')
const sort = ref<'place' | 'effect' | 'sentence' | 'status'>('place')
const chosen = ref<ReadonlySet<string>>(new Set())
const open = ref<string | null>(null)

interface Line {
  rule: Rule
  sentence: string
  status: 'fault' | 'risk' | 'advice' | 'fine'
}
const WEIGHT = { fault: 0, risk: 1, advice: 2, fine: 3 } as const
const lines = computed((): Line[] =>
  !draft.form
    ? []
    : rulesOf(draft.form, draft.places).map(rule => {
        const said = findings
          .at(rule.place.address)
          .filter(
            f =>
              f.rule === rule.id ||
              f.conflict.some(
                c => c.address === rule.place.address && c.kind === rule.kind && c.index === rule.index,
              ),
          )
        const segments = draft.words ? ruleSentence(rule.text, draft.words) : null
        return {
          rule,
          sentence: segments ? sentenceText(segments) : rule.text,
          status: said[0]?.severity ?? 'fine',
        }
      }),
)
const shown = computed(() => {
  const wanted = search.value.toLowerCase()
  const kept = lines.value.filter(
    l =>
      (effect.value === '' || l.rule.kind === effect.value) &&
      (status.value === '' || l.status === status.value) &&
      (wanted === '' ||
        `${placeName(l.rule.place)} ${l.rule.place.code} ${l.sentence} ${l.rule.text}`
          .toLowerCase()
          .includes(wanted)),
  )
  const by = {
    place: (a: Line, b: Line) => a.rule.place.order - b.rule.place.order,
    effect: (a: Line, b: Line) => a.rule.kind.localeCompare(b.rule.kind),
    sentence: (a: Line, b: Line) => a.sentence.localeCompare(b.sentence),
    status: (a: Line, b: Line) => WEIGHT[a.status] - WEIGHT[b.status],
  }[sort.value]
  return kept.toSorted((a, b) => by(a, b) || a.rule.place.order - b.rule.place.order)
})
const kinds = computed(() => [...new Set(lines.value.map(l => l.rule.kind))])
const picked = computed(() => shown.value.filter(l => chosen.value.has(l.rule.id)))
function toggle(id: string) {
  const next = new Set(chosen.value)
  if (!next.delete(id)) next.add(id)
  chosen.value = next
}
const statusText = (status: Severity | 'fine') =>
  status === 'fine' ? '✓' : `${SEVERITY_MARKS[status]} ${status}`
const change = (rule: Rule, text: string | null, merge: string | null = null) =>
  draft.form && draft.edit([withRule(draft.form, rule, text)], merge)
/** The last of several checks or routes of one place first, so that positions stay right. */
function each(make: (rule: Rule) => Edit | null) {
  const rules = picked.value.map(l => l.rule).toSorted((a, b) => b.index - a.index)
  const { form } = draft
  if (!form) return
  const edits: Edit[] = []
  for (const rule of rules) {
    const edit = make(rule)
    if (edit) edits.push(edit)
  }
  if (edits.length > 0 && draft.edit(edits)) chosen.value = new Set()
}
/** Several lists of one place (checks, routes) can't be rewritten one after the other from the same state: one at a time. */
function removePicked() {
  for (const { rule } of picked.value.toSorted((a, b) => b.rule.index - a.rule.index)) change(rule, null)
  chosen.value = new Set()
}
function movePicked(to: 'shownWhen' | 'required') {
  each(rule =>
    (rule.kind === 'shownWhen' || rule.kind === 'required') &&
    rule.kind !== to &&
    (to === 'shownWhen' || 'required' in rule.place.node || rule.place.kind === 'question')
      ? { do: 'change', what: rule.place.address, set: { [rule.kind]: null, [to]: rule.text } }
      : null,
  )
}
function go(rule: Rule) {
  draft.select(rule.place.address)
  void navigateTo({ query: {} })
}
</script>

<template>
  <section
    class="book"
    aria-label="Rulebook"
  >
    <div class="bar">
      <v-text-field
        v-model="search"
        placeholder="Search the rules"
        aria-label="Search the rules"
      />
      <v-select
        v-model="effect"
        aria-label="Effect"
        :items="[
          { value: '', title: 'every effect' },
          ...kinds.map(k => ({ value: k, title: RULE_WORDS[k].toLowerCase() })),
        ]"
      />
      <v-select
        v-model="status"
        aria-label="Status"
        :items="[
          { value: '', title: 'any status' },
          { value: 'fault', title: 'faults' },
          { value: 'risk', title: 'risks' },
          { value: 'fine', title: 'in order' },
        ]"
      />
      <v-select
        v-model="sort"
        aria-label="Sorted by"
        :items="[
          { value: 'place', title: 'by place' },
          { value: 'effect', title: 'by effect' },
          { value: 'sentence', title: 'by sentence' },
          { value: 'status', title: 'by status' },
        ]"
      />
      <span class="small quiet num">{{ shown.length }} of {{ lines.length }} rules</span>
    </div>
    <div
      v-if="picked.length > 0"
      class="bar picked"
      role="toolbar"
      aria-label="Chosen rules"
    >
      <strong class="small">{{ picked.length }} chosen</strong>
      <v-btn
        variant="text"
        @click="movePicked('required')"
      >
        Make them required-when
      </v-btn>
      <v-btn
        variant="text"
        @click="movePicked('shownWhen')"
      >
        Make them shown-when
      </v-btn>
      <v-btn
        variant="text"
        @click="removePicked"
      >
        Take them away
      </v-btn>
    </div>
    <div class="scroll">
      <v-table v-if="lines.length > 0">
        <thead>
          <tr>
            <th><span class="hidden-words">Chosen</span></th>
            <th>Where</th>
            <th>Effect</th>
            <th>Sentence</th>
            <th>Status</th>
          </tr>
        </thead>
        <tbody>
          <template
            v-for="l in shown"
            :key="l.rule.id"
          >
            <tr :class="{ on: open === l.rule.id }">
              <td>
                <v-checkbox-btn
                  :model-value="chosen.has(l.rule.id)"
                  :aria-label="`Choose the rule of ${placeName(l.rule.place)}`"
                  @change="toggle(l.rule.id)"
                />
              </td>
              <td>
                <v-btn
                  variant="text"
                  @click="go(l.rule)"
                >
                  <span class="num">{{ l.rule.place.number }}</span> {{ placeName(l.rule.place) }}
                </v-btn>
              </td>
              <td class="small effect">{{ RULE_WORDS[l.rule.kind].toLowerCase() }}</td>
              <td>
                <v-btn
                  variant="plain"
                  class="sentence"
                  :aria-expanded="open === l.rule.id"
                  @click="open = open === l.rule.id ? null : l.rule.id"
                >
                  {{ l.sentence }}
                </v-btn>
              </td>
              <td
                class="small"
                :class="l.status === 'fine' ? 'proven' : l.status"
              >
                {{ statusText(l.status) }}
              </td>
            </tr>
            <tr
              v-if="open === l.rule.id"
              class="on"
            >
              <td />
              <td colspan="4">
                <RuleField
                  v-if="isCondition(l.rule.kind) && l.rule.kind !== 'narrowedBy'"
                  :words="RULE_WORDS[l.rule.kind]"
                  :text="l.rule.text"
                  :place="l.rule.place"
                  @change="change(l.rule, $event, `${l.rule.id}`)"
                />
                <ExpressionField
                  v-else
                  :words="RULE_WORDS[l.rule.kind]"
                  :text="l.rule.text"
                  :place="l.rule.place"
                  :wanted="null"
                  :row="
                    l.rule.kind === 'narrowedBy' && 'list' in l.rule.place.node
                      ? l.rule.place.node.list
                      : undefined
                  "
                  @change="$event !== null && change(l.rule, $event, `${l.rule.id}`)"
                />
              </td>
            </tr>
          </template>
        </tbody>
      </v-table>
      <p
        v-else
        class="quiet none"
      >
        No rules yet. A rule is written where it acts: open a row of the script and choose “+ shown when …”.
      </p>
    </div>
  </section>
</template>

<style scoped>
.book {
  display: flex;
  flex-direction: column;
  min-height: 0;
  flex: 1;
  background: var(--paper);
}
.bar {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 10px;
  align-items: center;
  padding: 6px 16px;
  border-bottom: 1px solid var(--line);
  flex: none;
}
.picked {
  background: var(--verdigris-wash);
}
.scroll {
  overflow: auto;
  flex: 1;
  padding-bottom: 60px;
}
.v-table {
  font-size: 14px;
}
th {
  text-align: left;
  font-weight: 400;
  color: var(--slate);
  font-size: 13px;
  position: sticky;
  top: 0;
  background: var(--linen);
}
th,
td {
  padding: 4px 8px;
  border-bottom: 1px solid var(--line);
  vertical-align: top;
}
th:first-child,
td:first-child {
  padding-left: 16px;
}
.effect {
  white-space: nowrap;
}
.sentence {
  border: 0;
  background: none;
  padding: 0;
  text-align: left;
  cursor: pointer;
  color: var(--verdigris);
}
.on td {
  background: var(--soft);
}
.none {
  padding: 40px;
}
</style>
