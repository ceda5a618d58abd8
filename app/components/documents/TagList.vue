<script setup lang="ts">
import { mdiArrowLeftBottom, mdiChevronDown, mdiChevronUp, mdiContentCopy } from '@mdi/js'
import { useTagTarget } from '~/composables/write/tagTarget'
import { pointableQuestions } from '#core/form/names'
import type { Condition } from '#core/expressions/pointing'
import { expressionOf, firstTest } from '#core/expressions/pointing'
import { print } from '#core/expressions/print'
import { placeName } from '#core/form/walk'

/**
 * The tags of the form, beside the templates that they go into or to be copied into a word processor: quotes by question, loops, and clauses whose
 * condition is built by pointing. `unfolded`: they show until they are folded.
 */
const props = defineProps<{ unfolded: boolean }>()
const VIEWS = [
  { value: 'questions', title: 'Questions' },
  { value: 'clause', title: 'A clause' },
] as const
const view = ref<(typeof VIEWS)[number]['value']>('questions')
const wanted = ref<boolean | null>(null)
const isOpen = computed(() => wanted.value ?? props.unfolded)
const draft = useDraft()
const said = useSaid()
const search = ref('')
const last = computed(() => draft.places.findLast(p => p.kind === 'section'))
const tags = computed(() => {
  const sought = search.value.trim().toLowerCase()
  return draft.places
    .flatMap(place => {
      if (place.kind === 'section' || place.kind === 'note') return []
      const loops = place.kind === 'group' ? place.node.repeat !== undefined : LOOPED.has(place.node.type)
      if (place.kind === 'group' && !loops) return []
      const tag = place.kind === 'group' ? `{{#each ${place.code}}} … {{/each}}` : `{{ ${place.code} }}`
      const also = loops && place.kind !== 'group' ? `{{#each ${place.code}}}{{ item.label }} {{/each}}` : ''
      const inside = place.entryOf ? `in a loop over ${place.entryOf.code}` : ''
      return [{ address: place.address, name: placeName(place), tag, also, inside }]
    })
    .filter(t => `${t.name} ${t.tag}`.toLowerCase().includes(sought))
})
const LOOPED: ReadonlySet<string> = new Set(['choices', 'grid', 'ranking'])
const target = useTagTarget()
/** Into the template that is written, or to be pasted. */
async function copy(text: string) {
  if (target.put) {
    target.put(text)
    return
  }
  await navigator.clipboard.writeText(text)
  said.say(`Copied: ${text}`)
}
/** Also into a word processor that stands beside. */
const drag = (event: DragEvent, text: string) => event.dataTransfer?.setData('text/plain', text)
/** The condition of a clause, while it is built. */
const condition = shallowRef<Condition>({ kind: 'group', mode: 'all', parts: [firstTest()] })
const clause = computed(() => {
  const expr = expressionOf(condition.value)
  return expr ? `{{#when ${print(expr)}}} … {{else}} … {{/when}}` : ''
})
const questions = computed(() =>
  draft.form && last.value ? pointableQuestions(draft.form, draft.places, last.value) : [],
)
</script>

<template>
  <section
    class="tags"
    aria-label="Tags"
  >
    <div class="row-flex head">
      <h2>Tags</h2>
      <SegmentedChoice
        v-if="isOpen"
        v-model="view"
        name="Which tags"
        :options="VIEWS"
      />
      <span class="spread" />
      <v-text-field
        v-if="isOpen && view === 'questions'"
        v-model="search"
        placeholder="Find a question"
        aria-label="Find a question"
        class="find"
      />
      <IconButton
        :icon="isOpen ? mdiChevronDown : mdiChevronUp"
        :name="isOpen ? 'Fold the tags' : 'Show the tags'"
        :aria-expanded="isOpen"
        @click="wanted = !isOpen"
      />
    </div>
    <div
      v-if="isOpen"
      class="body"
    >
      <template v-if="view === 'questions'">
        <p class="small quiet">
          Drag a tag into the template, or press its button. Formats come behind a bar:
          <code v-pre>{{ lift_on | long date }}</code>, <code>money</code>, <code>upper case</code>,
          <code>list</code>, <code>in words</code>. In a loop, <code>item.number</code> counts.
        </p>
        <ul>
          <li
            v-for="t in tags"
            :key="t.address"
          >
            <span
              >{{ t.name }} <span class="small quiet">{{ t.inside }}</span></span
            >
            <code
              draggable="true"
              @dragstart="drag($event, t.tag)"
              >{{ t.tag }}</code
            >
            <IconButton
              :icon="target.put ? mdiArrowLeftBottom : mdiContentCopy"
              :name="target.put ? `Put the tag of ${t.name} in` : `Copy the tag of ${t.name}`"
              @click="copy(t.tag)"
            />
            <template v-if="t.also">
              <span class="small quiet">one by one</span>
              <code
                draggable="true"
                @dragstart="drag($event, t.also)"
                >{{ t.also }}</code
              >
              <IconButton
                :icon="target.put ? mdiArrowLeftBottom : mdiContentCopy"
                :name="target.put ? `Put the loop of ${t.name} in` : `Copy the loop of ${t.name}`"
                @click="copy(t.also)"
              />
            </template>
          </li>
        </ul>
      </template>
      <template v-else>
        <ConditionBuilder
          :condition="condition"
          :questions="questions"
          @change="condition = $event"
          @remove="condition = { kind: 'group', mode: 'all', parts: [firstTest()] }"
        />
        <div
          v-if="clause"
          class="row-flex clause"
        >
          <code
            draggable="true"
            @dragstart="drag($event, clause)"
            >{{ clause }}</code
          >
          <IconButton
            :icon="target.put ? mdiArrowLeftBottom : mdiContentCopy"
            :name="target.put ? 'Put the clause in' : 'Copy the clause'"
            @click="copy(clause)"
          />
        </div>
      </template>
    </div>
  </section>
</template>

<style scoped>
.tags {
  display: grid;
  gap: 8px;
  padding: 8px 20px 10px;
  border-top: 1px solid var(--line);
  background: var(--paper);
}
.head {
  min-height: 34px;
}
h2 {
  font-size: 15px;
}
.find {
  flex: 0 1 220px;
}
.body {
  display: grid;
  gap: 10px;
  align-content: start;
  height: clamp(120px, 26vh, 300px);
  overflow-y: auto;
}
ul {
  list-style: none;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: 1fr minmax(0, 1.2fr) 34px;
  align-items: center;
  gap: 4px 10px;
  border-bottom: 1px dotted var(--line);
}
code {
  cursor: grab;
  overflow-wrap: anywhere;
}
</style>
