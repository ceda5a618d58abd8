<script setup lang="ts">
import {
  findText,
  replaceFoundEdits,
  replaceTextEdits,
  withReplaced,
  type Field,
  type Found,
} from '#core/form/findText'
import { placeName, type Address } from '#core/form/walk'

/** Finds and replaces in labels, codes and rules. */
const emit = defineEmits<{ close: []; go: [address: Address] }>()
const draft = useDraft()
const wanted = ref('')
const matchCase = ref(false)
const wholeWord = ref(false)
const sought = computed(() => ({
  text: wanted.value,
  matchCase: matchCase.value,
  wholeWord: wholeWord.value,
}))
const by = ref('')
const fields = ref<Field[]>(['label', 'code', 'rule'])
const at = ref(0)
const { say, sayDone } = useSaid()
const input = useTemplateRef('input')
onMounted(() => input.value?.focus())
const found = computed(() =>
  draft.form ? findText(draft.form, draft.places, sought.value, fields.value) : [],
)
const position = computed(() => {
  if (!wanted.value) return ''
  const nth = found.value.length === 0 ? 0 : at.value + 1
  return `${nth} of ${found.value.length}`
})
const current = computed(() => found.value[at.value])
const place = computed(() => draft.places.find(p => p.address === current.value?.address))
watch(sought, () => {
  at.value = 0
})
function go(step: number) {
  if (found.value.length === 0) return
  at.value = (at.value + step + found.value.length) % found.value.length
  if (current.value) draft.select(current.value.address)
}
/** So many replacements are shown before they are made. */
const SHOWN = 6
const preview = computed(() => (by.value === '' ? [] : found.value.slice(0, SHOWN)))
const nameAt = ({ address }: Found) => {
  const there = draft.places.find(p => p.address === address)
  return there ? `${there.number} ${there.code}` : ''
}
/** Replaces the one that is looked at, and goes on to the next. */
function replaceOne() {
  const { value } = current
  if (!draft.form || !value) return
  const edits = replaceFoundEdits(draft.form, value, by.value)
  if (typeof edits === 'string') return say(edits)
  if (!draft.edit(edits)) return
  // What was found next stands here now, unless the new text has what is looked for too.
  const isStill =
    found.value[at.value]?.address === value.address && found.value[at.value]?.from === value.from
  at.value = Math.min(isStill ? at.value + 1 : at.value, Math.max(0, found.value.length - 1))
  if (current.value) draft.select(current.value.address)
}
function replace() {
  if (!draft.form) return
  const { edits, count, refused } = replaceTextEdits(draft.form, sought.value, by.value, fields.value)
  if (edits.length > 0 && !draft.edit(edits)) return
  sayDone([`Replaced in ${counted(count, 'place')}.`, ...refused].join(' '))
}
</script>

<template>
  <div
    class="find"
    role="search"
    aria-label="Find and replace"
    @keydown.esc.stop="emit('close')"
  >
    <v-text-field
      ref="input"
      v-model="wanted"
      placeholder="Find"
      aria-label="Find"
      @keydown.enter.exact.prevent="go(1)"
      @keydown.shift.enter.prevent="go(-1)"
    />
    <span class="small quiet num">{{ position }}</span>
    <v-btn
      variant="text"
      :disabled="found.length === 0"
      @click="go(-1)"
    >
      Before
    </v-btn>
    <v-btn
      variant="text"
      :disabled="found.length === 0"
      @click="go(1)"
    >
      Next
    </v-btn>
    <label
      v-for="f in ['label', 'code', 'rule'] as const"
      :key="f"
      class="small"
      ><v-checkbox-btn
        v-model="fields"
        :value="f"
      />
      {{ f }}s</label
    >
    <label class="small"><v-checkbox-btn v-model="matchCase" /> match case</label>
    <label class="small"><v-checkbox-btn v-model="wholeWord" /> whole word</label>
    <v-text-field
      v-model="by"
      placeholder="Replace by"
      aria-label="Replace by"
    />
    <v-btn
      :disabled="found.length === 0"
      @click="replaceOne"
    >
      Replace
    </v-btn>
    <v-btn
      :disabled="found.length === 0"
      @click="replace"
    >
      Replace all
    </v-btn>
    <v-btn
      variant="text"
      @click="emit('close')"
    >
      Close
    </v-btn>
    <p
      v-if="current && place"
      class="small hit"
    >
      <v-btn
        variant="text"
        @click="emit('go', current.address)"
      >
        {{ place.number }} {{ placeName(place) }}
      </v-btn>
      {{ current.text.slice(Math.max(0, current.from - 40), current.from)
      }}<mark>{{ current.text.slice(current.from, current.to) }}</mark
      >{{ current.text.slice(current.to, current.to + 40) }}
    </p>
    <ul
      v-if="preview.length > 0"
      class="small quiet preview"
      aria-label="What would be replaced"
    >
      <li
        v-for="(f, i) in preview"
        :key="i"
      >
        {{ nameAt(f) }}: {{ f.text }} → <strong>{{ withReplaced(f, by) }}</strong>
      </li>
      <li v-if="found.length > preview.length">and {{ found.length - preview.length }} more</li>
    </ul>
  </div>
</template>

<style scoped>
.find {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 10px;
  align-items: center;
  padding: 8px 16px;
  border-bottom: 1px solid var(--line);
  background: var(--linen);
}
.find .v-text-field {
  flex: 0 1 160px;
}
.hit,
.preview,
.find p {
  flex-basis: 100%;
}
mark {
  background: var(--weld-wash);
  color: inherit;
}
</style>
