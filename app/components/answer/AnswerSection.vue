<script setup lang="ts">
import type { Answer, Answers } from '#core/fill/answers'
import { problemsIn, type Filled } from '#core/fill/fill'
import type { Address } from '#core/form/walk'

/** One section to be answered, with its errors in a list on top once somebody has tried to go on. */
const props = defineProps<{ filled: Filled, section: number, answers: Answers, tried: boolean, lit?: Address | null, prefix: string, level?: 'h1' | 'h2' }>()
const emit = defineEmits<{ answer: [code: string, value: Answer] }>()
const planned = computed(() => props.filled.plan.sections[props.section])
const problems = computed(() => props.tried && planned.value ? problemsIn(props.filled, planned.value) : [])
const isEmpty = computed(() => planned.value?.steps.every(s => !props.filled.inPlay[s.place.order]) ?? true)
const list = useTemplateRef('list')
defineExpose({ focusProblems: () => list.value?.focus() })
function goTo(code: string) {
  const box = document.getElementById(`${props.prefix}-${code}-box`)
  box?.scrollIntoView({ block: 'center' })
  box?.querySelector<HTMLElement>('input, select, textarea')?.focus()
}
</script>

<template>
  <div v-if="planned" class="section">
    <component :is="level ?? 'h2'" class="title" tabindex="-1">{{ planned.place.node.title }}</component>
    <div v-if="problems.length > 0" ref="list" class="problems" role="alert" tabindex="-1">
      <p><strong>{{ problems.length === 1 ? 'One answer needs' : `${problems.length} answers need` }} your attention</strong></p>
      <ul>
        <li v-for="p in problems" :key="p.question.place.code"><a :href="`#${prefix}-${p.question.place.code}-box`" @click.prevent="goTo(p.question.place.code)">{{ p.question.place.node.label }}</a>: {{ p.sentence }}</li>
      </ul>
    </div>
    <AnswerItems :filled="filled" :section="section" :parent="-1" :answers="answers" :tried="tried" :lit="lit ?? null" :prefix="prefix" @answer="(code, value) => emit('answer', code, value)" />
    <p v-if="isEmpty" class="quiet">There is nothing to answer here.</p>
  </div>
</template>

<style scoped>
.section { display: grid; gap: 28px; }
.title:focus { outline: none; }
.problems { border: 2px solid var(--madder); background: var(--madder-wash); padding: 12px 16px; }
.problems li { margin-top: 4px; }
.problems a { color: var(--madder); font-weight: 600; }
</style>
