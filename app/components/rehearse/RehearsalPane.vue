<script setup lang="ts">
import { closingOf } from '#core/fill/closing'
import { FILE_TAKER, type FileTaker } from '../answer/widgets/widget'

/** The live form beside the design. */
const draft = useDraft()
const rehearsal = useRehearsal()
const width = ref<'phone' | 'pane'>('pane')
const sheet = useTemplateRef('sheet')
const filled = computed(() => rehearsal.filled)
const way = useWay(filled, toRef(rehearsal, 'place'))
const { at, page } = way
const finished = ref(false)
const said = computed(() => filled.value ? closingOf(filled.value) : null)
// Nothing is sent while rehearsing: a file is only named.
provide<FileTaker>(FILE_TAKER, { take: (_, file) => Promise.resolve({ file: `rehearsal-${Date.now()}`, name: file.name, bytes: file.size }) })

function goOn() {
  if (way.goOn() === 'end') finished.value = true
  sheet.value?.scrollTo({ top: 0 })
}
function goBack() {
  if (finished.value) finished.value = false
  else way.goBack()
}
function afresh() {
  rehearsal.startAfresh()
  finished.value = false
  way.tried.value = false
}
watch([() => rehearsal.place, () => draft.id], () => {
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
      <div v-if="filled && page" class="sheet page" :class="width">
        <template v-if="finished && said">
          <h2>All answered</h2>
          <p class="quiet">A respondent would now check the answers and send them. Then the page says:</p>
          <div class="said"><strong>{{ said.title }}</strong><p>{{ said.text }}</p><p v-if="said.forward" class="small quiet">and goes on to <code>{{ said.forward }}</code></p></div>
          <div class="row-flex foot"><button class="plain-button" @click="goBack">Back</button></div>
        </template>
        <template v-else>
          <p class="quiet small part">{{ way.progress.value }}</p>
          <AnswerSection :filled="filled" :page="page" :answers="rehearsal.answers" :tried="way.tried.value" :lit="rehearsal.lit" prefix="try" @answer="(code, value) => rehearsal.answer(code, value)" />
          <div class="row-flex foot">
            <button class="plain-button" :disabled="at === 0" @click="goBack">Back</button>
            <span class="spread" />
            <button class="action" @click="goOn">{{ way.nextWords.value }}</button>
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
.said { border-left: 1px solid var(--line); padding-left: 12px; margin-top: 12px; white-space: pre-line; }
.foot { margin-top: 28px; }
.lit-line { background: var(--woad-wash); padding: 6px 12px; margin: 0 auto 12px; max-width: 672px; }
.empty { padding: 40px; text-align: center; }
</style>
