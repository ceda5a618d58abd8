<script setup lang="ts">
import type { Severity } from '#core/prove/finding'
import { SEVERITY_MARKS } from '~/theme/severityMarks'
import { sentenceText } from '#core/expressions/sentence'
import { ruleSentence } from '#core/form/names'
import {
  exitName,
  isCondition,
  plainExits,
  RULE_WORDS,
  rulesOf,
  withoutExit,
  withRule,
  type Rule,
  type RuleKind,
} from '#core/form/rules'
import { placeName } from '#core/form/walk'
import type { Edit } from '#core/form/edits'

/** Every rule of the form in one table: where, effect, sentence, status; sorted, filtered, searched, edited in place, removed or moved in bulk. */
const draft = useDraft()
const findings = useFindings()
const search = ref('')
const effect = ref<RuleKind | ''>('')
const status = ref<'' | 'fault' | 'risk' | 'fine'>('')
/** Rules by their ids: those that are ticked, and the one that is open to be changed. */
const chosen = ref<string[]>([])
const open = ref<string[]>([])
const sortedBy = ref([{ key: 'order', order: 'asc' as const }])
const HEADERS = [
  { title: 'Where', key: 'order' },
  { title: 'Effect', key: 'effect' },
  { title: 'Sentence', key: 'sentence' },
  { title: 'Status', key: 'weight' },
]

interface Line {
  id: string
  rule: Rule
  /** What it is sorted by: its place, what it does, and how bad what is said of it is. */
  order: number
  effect: string
  weight: number
  sentence: string
  status: 'fault' | 'risk' | 'advice' | 'fine'
}
const WEIGHT = { fault: 0, risk: 1, advice: 2, fine: 3 } as const
const lines = computed((): Line[] =>
  !draft.form
    ? []
    : [...rulesOf(draft.form, draft.places), ...plainExits(draft.places)].map(rule => {
        const said = findings
          .at(rule.place.address)
          .filter(
            f =>
              f.rule === rule.id ||
              f.conflict.some(
                c => c.address === rule.place.address && c.kind === rule.kind && c.index === rule.index,
              ),
          )
        const status = said[0]?.severity ?? 'fine'
        return {
          id: rule.id,
          rule,
          order: rule.place.order,
          effect: RULE_WORDS[rule.kind].toLowerCase(),
          sentence: sentenceIn(rule),
          status,
          weight: WEIGHT[status],
        }
      }),
)
/** What a rule says; of a route or skip, where it leads too. */
function sentenceIn(rule: Rule): string {
  const segments = draft.words && rule.text !== '' ? ruleSentence(rule.text, draft.words) : null
  const said = segments ? sentenceText(segments) : rule.text
  if (rule.kind !== 'route' && rule.kind !== 'skip') return said
  const to = `on to ${exitName(draft.places, rule)}`
  return rule.text === '' ? `always ${to}` : `${to} when ${said}`
}
const shown = computed(() => {
  const wanted = search.value.toLowerCase()
  return lines.value.filter(
    l =>
      (effect.value === '' || l.rule.kind === effect.value) &&
      (status.value === '' || l.status === status.value) &&
      (wanted === '' ||
        `${placeName(l.rule.place)} ${l.rule.place.code} ${l.sentence} ${l.rule.text}`
          .toLowerCase()
          .includes(wanted)),
  )
})
const kinds = computed(() => [...new Set(lines.value.map(l => l.rule.kind))])
const effects = computed(() => [
  { value: '', title: 'every effect' },
  ...kinds.value.map(k => ({ value: k, title: RULE_WORDS[k].toLowerCase() })),
])
const STATUSES = [
  { value: '', title: 'any status' },
  { value: 'fault', title: 'faults' },
  { value: 'risk', title: 'risks' },
  { value: 'fine', title: 'in order' },
]
const picked = computed(() => shown.value.filter(l => chosen.value.includes(l.id)))
const listOf = ({ rule }: Line) =>
  rule.kind === 'narrowedBy' && 'list' in rule.place.node ? rule.place.node.list : undefined
const isPointed = ({ rule }: Line) => isCondition(rule.kind) && rule.kind !== 'narrowedBy'
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
  if (edits.length > 0 && draft.edit(edits)) chosen.value = []
}
/** Several lists of one place (checks, routes) can't be rewritten one after the other from the same state: one at a time. */
function removePicked() {
  for (const { rule } of picked.value.toSorted((a, b) => b.rule.index - a.rule.index))
    if (rule.text === '') draft.edit([withoutExit(rule)])
    else change(rule, null)
  chosen.value = []
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
        :items="effects"
      />
      <v-select
        v-model="status"
        aria-label="Status"
        :items="STATUSES"
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
    <v-data-table-virtual
      v-if="lines.length > 0"
      v-model="chosen"
      v-model:expanded="open"
      v-model:sort-by="sortedBy"
      class="rules"
      :headers="HEADERS"
      :items="shown"
      item-value="id"
      show-select
      fixed-header
      must-sort
      density="compact"
      no-data-text="No rule is like that."
    >
      <template #[`header.data-table-select`]="{ allSelected, someSelected, selectAll }">
        <v-checkbox-btn
          :model-value="allSelected"
          :indeterminate="someSelected && !allSelected"
          aria-label="Choose all rules shown"
          @update:model-value="selectAll(!allSelected)"
        />
      </template>
      <template #[`item.data-table-select`]="{ item, internalItem, isSelected, toggleSelect }">
        <v-checkbox-btn
          :model-value="isSelected(internalItem)"
          :aria-label="`Choose the rule of ${placeName(item.rule.place)}`"
          @update:model-value="toggleSelect(internalItem)"
        />
      </template>
      <template #[`item.order`]="{ item }">
        <v-btn
          variant="text"
          @click="go(item.rule)"
        >
          <span class="num">{{ item.rule.place.number }}</span> {{ placeName(item.rule.place) }}
        </v-btn>
      </template>
      <template #[`item.effect`]="{ item }"
        ><span class="small effect">{{ item.effect }}</span></template
      >
      <template #[`item.sentence`]="{ item, internalItem, isExpanded, toggleExpand }">
        <v-btn
          variant="plain"
          class="sentence"
          :aria-expanded="isExpanded(internalItem)"
          @click="toggleExpand(internalItem)"
        >
          {{ item.sentence }}
        </v-btn>
      </template>
      <template #[`item.weight`]="{ item }">
        <span
          class="small"
          :class="item.status === 'fine' ? 'proven' : item.status"
          >{{ statusText(item.status) }}</span
        >
      </template>
      <template #expanded-row="{ item, columns }">
        <tr class="on">
          <td />
          <td :colspan="columns.length - 1">
            <RuleField
              v-if="isPointed(item)"
              :words="RULE_WORDS[item.rule.kind]"
              :text="item.rule.text || undefined"
              :place="item.rule.place"
              :part="item.id"
              :except="item.rule.kind === 'shownWhen' ? item.rule.place : null"
              @change="change(item.rule, $event, item.id)"
            />
            <ExpressionField
              v-else
              :words="RULE_WORDS[item.rule.kind]"
              :text="item.rule.text"
              :place="item.rule.place"
              :wanted="null"
              :row="listOf(item)"
              @change="$event !== null && change(item.rule, $event, item.id)"
            />
          </td>
        </tr>
      </template>
    </v-data-table-virtual>
    <v-empty-state
      v-else
      title="No rules yet"
      text="A rule is written where it acts: open a row of the script and choose “+ shown when …”."
    />
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
.rules {
  flex: 1;
  min-height: 0;
  font-size: 14px;
}
.rules :deep(.v-data-table__th),
.rules :deep(.v-data-table__td) {
  padding: 4px 8px;
  vertical-align: top;
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
