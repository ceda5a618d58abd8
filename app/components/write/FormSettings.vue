<script setup lang="ts">
import { codeFromLabel, freeCode } from '#core/form/codes'
import type { Closing } from '#core/form/definition'

/** What belongs to the whole form: title, pace, and what is said at the end. */
const draft = useDraft()
const form = computed(() => draft.form)
const closings = computed(() => form.value?.closings ?? [])
const last = computed(() => draft.places.findLast(p => p.kind === 'section'))
const set = (values: Record<string, unknown>, merge: string) =>
  draft.edit([{ do: 'change', what: 'form', set: values }], `form:${merge}`)
const put = (next: readonly Closing[], merge: string) =>
  set({ closings: next.length > 0 ? next : null }, merge)
/** An undefined part goes out of the closing. */
const change = (i: number, part: Partial<Closing>, merge: string) =>
  put(
    closings.value.map((c, j) =>
      j === i
        ? (Object.fromEntries(
            Object.entries({ ...c, ...part }).filter(([, v]) => v !== undefined && v !== ''),
          ) as Closing)
        : c,
    ),
    `${merge}${i}`,
  )
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
</script>

<template>
  <div
    v-if="form"
    class="settings"
    @keydown.stop
  >
    <label for="form-title">Title</label>
    <input
      id="form-title"
      class="field"
      :value="form.title"
      maxlength="500"
      @input="set({ title: inputText($event) }, 'title')"
    />
    <label for="form-pace">Pace</label>
    <select
      id="form-pace"
      class="field"
      :value="form.pace ?? 'section'"
      @change="set({ pace: inputText($event) === 'section' ? null : inputText($event) }, 'pace')"
    >
      <option value="section">a section at a time</option>
      <option value="question">a question at a time</option>
    </select>
    <span class="left">Closings</span>
    <div class="stack">
      <p class="small quiet">
        The first whose condition is true is shown after sending; a route to the finish may name its own.
        Texts may quote answers.
      </p>
      <div
        v-for="(c, i) in closings"
        :key="i"
        class="closing"
      >
        <div class="row-flex">
          <code>{{ c.code }}</code>
          <input
            class="field"
            :value="c.title ?? ''"
            placeholder="Thank you"
            :aria-label="`Closing ${i + 1}: title`"
            @input="change(i, { title: inputText($event) }, 'title')"
          />
          <input
            class="field forward"
            :value="c.forward ?? ''"
            placeholder="goes on to https://…"
            :aria-label="`Closing ${i + 1}: address to go on to`"
            @change="change(i, { forward: inputText($event).trim() }, 'forward')"
          />
          <button
            class="text-button"
            @click="put(closings.toSpliced(i, 1), 'closings')"
          >
            Remove
          </button>
        </div>
        <textarea
          class="field"
          rows="2"
          :value="c.text ?? ''"
          placeholder="Your answers have been sent."
          :aria-label="`Closing ${i + 1}: text`"
          @input="change(i, { text: inputText($event) }, 'text')"
        />
        <RuleField
          v-if="last"
          words="Said when"
          :text="c.when"
          :place="last"
          @change="change(i, { when: $event ?? undefined }, 'when')"
          ><template #none><span class="small quiet">always</span></template></RuleField
        >
      </div>
      <button
        class="text-button"
        @click="add"
      >
        + closing
      </button>
    </div>
    <span class="left">Parties</span>
    <PartiesEditor />
    <template v-if="(form.parties ?? []).length > 0">
      <span class="left">Turns</span>
      <TurnsEditor />
    </template>
  </div>
</template>

<style scoped>
.settings {
  display: grid;
  grid-template-columns: 80px minmax(0, 1fr);
  gap: 8px 12px;
  padding: 12px 16px;
  border-bottom: 1px solid var(--verdigris);
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
.stack,
.closing {
  display: grid;
  gap: 6px;
}
.closing {
  border-left: 1px solid var(--line);
  padding-left: 10px;
}
.forward {
  min-width: 200px;
}
</style>
