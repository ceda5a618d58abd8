<script setup lang="ts">
import { problemsIn } from '#core/fill/fill'

/** The live form beside the design. */
const draft = useDraft()
const rehearsal = useRehearsal()
const width = ref<'phone' | 'pane'>('pane')
const tried = ref(false)
const sheet = useTemplateRef('sheet')

const path = computed(() => rehearsal.filled?.path ?? [])
/** The section on show: the chosen one while it is on the way, else the last before it. */
const current = computed(() => path.value.filter(i => i <= rehearsal.section).at(-1) ?? path.value[0])
const at = computed(() => current.value === undefined ? -1 : path.value.indexOf(current.value))
const next = computed(() => path.value[at.value + 1])
const open = computed(() => current.value === undefined ? undefined : rehearsal.plan?.sections[current.value])
const isBlocked = computed(() => rehearsal.filled && open.value ? problemsIn(rehearsal.filled, open.value).length > 0 : false)
const finished = ref(false)

function goOn() {
  tried.value = isBlocked.value
  if (isBlocked.value) return
  if (next.value === undefined) finished.value = true
  else rehearsal.section = next.value
  sheet.value?.scrollTo({ top: 0 })
}
function goBack() {
  tried.value = false
  if (finished.value) finished.value = false
  else rehearsal.section = path.value[at.value - 1] ?? 0
}
function afresh() {
  rehearsal.startAfresh()
  finished.value = false
  tried.value = false
}
watch([() => rehearsal.section, () => draft.id], () => {
  finished.value = false
})
watch(() => rehearsal.lit, (lit) => {
  if (lit) void nextTick(() => sheet.value?.querySelector('.lit')?.scrollIntoView({ block: 'center' }))
})
const litName = computed(() => {
  const place = draft.places.find(p => p.address === rehearsal.lit)
  if (!place || !rehearsal.filled) return null
  const name = place.kind === 'note' ? 'this note' : `“${place.kind === 'question' ? place.node.label : place.node.title}”`
  return { name, shown: rehearsal.filled.inPlay[place.order] === true }
})
</script>

<template>
  <section class="rehearsal" aria-label="Rehearsal">
    <div class="pane-bar">
      <strong>Rehearsal</strong>
      <span class="spread" />
      <span class="widths" role="radiogroup" aria-label="Width">
        <button v-for="w in (['phone', 'pane'] as const)" :key="w" role="radio" :aria-checked="width === w" @click="width = w">{{ w }}</button>
      </span>
      <button class="text-button" @click="afresh">Start afresh</button>
    </div>
    <div ref="sheet" class="scroll">
      <p v-if="litName" class="lit-line small">
        These answers lead to {{ litName.name }}{{ litName.shown ? ', marked below.' : ', which does not show.' }}
        <button class="text-button" @click="rehearsal.lit = null">Done</button>
      </p>
      <div v-if="rehearsal.filled && current !== undefined" class="sheet page" :class="width">
        <template v-if="finished">
          <h2>All answered</h2>
          <p class="quiet">A respondent would now check the answers and send them.</p>
          <div class="row-flex foot"><button class="plain-button" @click="goBack">Back</button></div>
        </template>
        <template v-else>
          <p class="quiet small part">Part {{ at + 1 }} of about {{ path.length }}</p>
          <AnswerSection :filled="rehearsal.filled" :section="current" :answers="rehearsal.answers" :tried="tried" :lit="rehearsal.lit" prefix="try" @answer="(code, value) => rehearsal.answer(code, value)" />
          <div class="row-flex foot">
            <button class="plain-button" :disabled="at === 0" @click="goBack">Back</button>
            <span class="spread" />
            <button class="action" @click="goOn">{{ next === undefined ? 'Check your answers' : `Next: ${draft.form?.sections[next]?.title}` }}</button>
          </div>
        </template>
      </div>
      <p v-else class="quiet empty">The form has no section that can be shown yet.</p>
    </div>
  </section>
</template>

<style scoped>
.rehearsal { display: flex; flex-direction: column; min-height: 0; height: 100%; }
.pane-bar { display: flex; align-items: center; gap: 12px; height: 40px; padding: 0 16px; border-bottom: 1px solid var(--line); flex: none; }
.widths { display: inline-flex; border: 1px solid var(--line); }
.widths button { border: 0; background: none; font-size: 13px; padding: 2px 12px; cursor: pointer; }
.widths button[aria-checked='true'] { background: var(--ink); color: var(--paper); }
.scroll { position: relative; overflow-y: auto; padding: 16px 20px 80px; flex: 1; }
.page { padding: 24px 28px; max-width: 640px; margin: 0 auto; }
.page.phone { width: 360px; max-width: 100%; box-sizing: border-box; padding: 20px 16px; }
.part { margin-bottom: 4px; }
.foot { margin-top: 28px; }
.lit-line { background: var(--woad-wash); padding: 6px 12px; margin: 0 auto 12px; max-width: 672px; }
.empty { padding: 40px; text-align: center; }
</style>
