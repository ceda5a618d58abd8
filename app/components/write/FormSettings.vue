<script setup lang="ts">
import { codeFromLabel, freeCode } from '#core/form/codes'
import { ALL_MESSAGES } from '#core/form/messages'
import type { Closing } from '#core/form/definition'

/** What belongs to the whole form: title, pace, and what is said at the end; a page of its own. */
const draft = useDraft()
const form = computed(() => draft.form)
const closings = computed(() => form.value?.closings ?? [])
const set = (values: Record<string, unknown>, merge: string) =>
  draft.edit([{ do: 'change', what: 'form', set: values }], `form:${merge}`)
const put = (next: readonly Closing[], merge: string) =>
  set({ closings: next.length > 0 ? next : null }, merge)
const add = () =>
  put(
    [
      ...closings.value,
      {
        code: freeCode(codeFromLabel('closing'), new Set(closings.value.map(c => c.code))),
        title: 'Thank you',
        text: 'Your answers have been sent.',
      },
    ],
    'closings',
  )
const stack = useTemplateRef('stack')
/** Moves a closing among the others; its handle keeps the focus. */
function move(from: number, to: number) {
  const moved = closings.value[from]
  if (!moved || to < 0 || to >= closings.value.length) return
  put(closings.value.toSpliced(from, 1).toSpliced(to, 0, moved), 'closings')
  void nextTick(() => stack.value?.querySelectorAll<HTMLElement>('.handle')[to]?.focus())
}
const setPace = (pace: string) => set({ pace: pace === 'section' ? null : pace }, 'pace')
const PACES = [
  { value: 'section', title: 'a section at a time' },
  { value: 'question', title: 'a question at a time' },
]
</script>

<template>
  <section
    v-if="form"
    class="settings"
    aria-label="Form settings"
    @keydown.stop
  >
    <label for="form-title">Title</label>
    <v-text-field
      id="form-title"
      :model-value="form.title"
      maxlength="500"
      @input="set({ title: inputText($event) }, 'title')"
    />
    <label for="form-pace">Pace</label>
    <v-select
      id="form-pace"
      :model-value="form.pace ?? 'section'"
      :items="PACES"
      @update:model-value="setPace"
    />
    <span class="left">Look</span>
    <FoldedPart title="Colours, pictures and sizes of the respondent’s page"><LookFields /></FoldedPart>
    <span class="left">Messages</span>
    <FoldedPart title="Own words for what is said of a missing or wrong answer">
      <p class="small quiet">
        They stand for every question of this form that has none of its own. An empty field shows what is said
        without.
      </p>
      <MessagesFields
        :kinds="ALL_MESSAGES"
        :messages="form.messages"
        @change="(messages, merge) => set({ messages }, merge)"
      />
    </FoldedPart>
    <span class="left">Closings</span>
    <div
      ref="stack"
      class="stack"
    >
      <p class="small quiet">
        The first whose condition is true is shown after sending; a route to the finish may name its own.
        Texts may quote answers.
      </p>
      <ClosingEditor
        v-for="(c, i) in closings"
        :key="c.code"
        :closing="c"
        :number="i + 1"
        @change="(closing, merge) => put(closings.toSpliced(i, 1, closing), `${merge}${i}`)"
        @remove="put(closings.toSpliced(i, 1), 'closings')"
        @move="move"
      />
      <v-btn
        variant="text"
        @click="add"
      >
        + closing
      </v-btn>
    </div>
  </section>
</template>

<style scoped>
.settings {
  display: grid;
  grid-template-columns: 80px minmax(0, 1fr);
  gap: 8px 12px;
  align-content: start;
  flex: 1;
  min-height: 0;
  overflow-y: auto;
  padding: 18px 20px 60px;
  align-items: start;
  background: var(--paper);
}
.settings > label,
.left {
  color: var(--slate);
  font-size: 13px;
  padding-top: 5px;
}
#form-pace {
  justify-self: start;
}
.stack {
  display: grid;
  gap: 6px;
}
</style>
