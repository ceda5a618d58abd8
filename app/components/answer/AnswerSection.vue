<script setup lang="ts">
import { HEADING_BELOW } from './keys'
import type { Answer, Answers } from '#core/form/answers'
import type { Filled } from '#core/fill/fill'
import { problemsOnPage, shownOn, type Page } from '#core/fill/pages'
import { quotedText } from '#core/fill/quote'
import type { AnswerProblem } from '#core/fill/problems'
import { placeName, type Address } from '#core/form/walk'

/** One page to be answered, with its errors in a list on top once somebody has tried to go on. */
const props = defineProps<{
  filled: Filled
  page: Page
  answers: Answers
  tried: boolean
  lit?: Address | null
  prefix: string
  level?: 'h1' | 'h2'
}>()
const emit = defineEmits<{ answer: [code: string, value: Answer] }>()
/** Groups inside stand one level below the section's own heading. */
provide(
  HEADING_BELOW,
  computed(() => (props.level === 'h1' ? 'h2' : 'h3')),
)
const planned = computed(() => props.filled.plan.sections[props.page.section])
const only = computed(() => shownOn(props.filled, props.page))
const problems = computed(() => (props.tried ? problemsOnPage(props.filled, props.page) : []))
const isEmpty = computed(() => planned.value?.steps.every(s => !props.filled.inPlay[s.place.order]) ?? true)
const idOf = (path: string) => `${props.prefix}-${path.replaceAll(/\[(\d+)\]\./g, '-$1-')}`
const nameOf = (p: AnswerProblem) => {
  const entry = /\[(\d+)\]\.[^[]*$/.exec(p.path)
  const name =
    p.step.place.kind === 'question'
      ? quotedText(props.filled, p.step.place.node.label, p.step.place) || p.step.place.code
      : placeName(p.step.place)
  return entry
    ? `${name} (${p.step.place.entryOf ? placeName(p.step.place.entryOf) : 'entry'} ${Number(entry[1]) + 1})`
    : name
}
function goTo(path: string) {
  const box = document.getElementById(`${idOf(path)}-box`)
  box?.scrollIntoView({ block: 'center' })
  box?.querySelector<HTMLElement>('input, select, textarea, button')?.focus()
}
</script>

<template>
  <div
    v-if="planned"
    class="section"
  >
    <component
      :is="level ?? 'h2'"
      class="title"
      tabindex="-1"
      >{{ quotedText(filled, planned.place.node.title, planned.place) }}</component
    >
    <v-alert
      v-if="problems.length > 0"
      class="problems"
      type="error"
      tabindex="-1"
    >
      <strong
        >{{ problems.length === 1 ? 'One answer needs' : `${problems.length} answers need` }} your
        attention</strong
      >
      <ul>
        <li
          v-for="p in problems"
          :key="p.path"
        >
          <a
            :href="`#${idOf(p.path)}-box`"
            @click.prevent="goTo(p.path)"
            >{{ nameOf(p) }}</a>: {{ p.sentence }}
        </li>
      </ul>
    </v-alert>
    <AnswerItems
      :frame="filled"
      :steps="planned.steps"
      :parent="-1"
      :only="only"
      :answers="answers"
      :tried="tried"
      :lit="lit ?? null"
      :prefix="prefix"
      @answer="(code, value) => emit('answer', code, value)"
    />
    <p
      v-if="isEmpty"
      class="quiet"
    >
      There is nothing to answer here.
    </p>
  </div>
</template>

<style scoped>
.section {
  display: grid;
  gap: 28px;
  container: answers / inline-size;
}
.title:focus {
  outline: none;
}
.problems {
  border: 2px solid var(--madder);
}
.problems li {
  margin-top: 4px;
}
.problems a {
  color: var(--madder);
  font-weight: 600;
}
</style>
