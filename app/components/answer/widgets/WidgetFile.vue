<script setup lang="ts">
import { isFile, DEFAULT_MEGABYTES, type FileAnswer } from '#core/fill/readers'
import { readableBytes } from '#core/fill/describeValue'
import { FILE_TAKER, OWN_FILE_ADDRESS } from '../keys'
import { fieldAttributes, type WidgetEmits, type WidgetProps } from './widget'

/** Files: chosen or dropped, sent at once and kept apart from the answers; shown with name and size. */
const props = defineProps<WidgetProps<'file'>>()
const emit = defineEmits<WidgetEmits>()
const taker = inject(FILE_TAKER)
const addressOf = inject(OWN_FILE_ADDRESS, null)
const ENDINGS = {
  image: '.jpg,.jpeg,.png,.gif,.webp',
  pdf: '.pdf',
  document: '.docx,.odt,.rtf',
  spreadsheet: '.xlsx,.ods',
  text: '.txt,.csv',
}
const WORDS = {
  image: 'images',
  pdf: 'PDF',
  document: 'documents',
  spreadsheet: 'spreadsheets',
  text: 'plain texts',
}
const most = computed(() => props.question.most ?? 1)
const megabytes = computed(() => props.question.megabytes ?? DEFAULT_MEGABYTES)
const files = computed(() => (Array.isArray(props.value) ? props.value : []).filter(isFile))
const accept = computed(() => props.question.kinds?.map(k => ENDINGS[k]).join(','))
const hint = computed(
  () =>
    `${props.question.kinds ? props.question.kinds.map(k => WORDS[k]).join(', ') : 'any common kind'}, up to ${megabytes.value} MB${most.value > 1 ? `, at most ${most.value}` : ''}`,
)
const sending = ref<string[]>([])
const refused = ref<string[]>([])
const over = ref(false)

async function take(chosen: readonly File[]) {
  refused.value = []
  removed.value = null
  let kept = [...files.value]
  for (const file of chosen) {
    if (kept.length >= most.value && most.value > 1) {
      refused.value.push(`“${file.name}” is not taken: at most ${most.value} files can be given.`)
      continue
    }
    if (file.size > megabytes.value * 1_000_000) {
      refused.value.push(
        `“${file.name}” has ${readableBytes(file.size)}; at most ${megabytes.value} MB are taken.`,
      )
      continue
    }
    sending.value.push(file.name)
    try {
      const given = await taker?.take(props.question.code, file)
      if (given) kept = most.value === 1 ? [{ ...given }] : [...kept, { ...given }]
      emit('answer', kept)
    } catch (error) {
      refused.value.push(refusalOf(error).sentence)
    }
    sending.value = sending.value.filter(n => n !== file.name)
  }
  emit('left')
}
/** What is chosen goes at once; the field is free for the next. */
const picked = ref<File | File[] | null>(null)
function choose(next: File | readonly File[] | null) {
  void take([next ?? []].flat())
  picked.value = most.value > 1 ? [] : null
}
function drop(event: DragEvent) {
  over.value = false
  void take([...(event.dataTransfer?.files ?? [])])
}
const box = useTemplateRef('box')
/** The file that was removed last, until another is given. */
const removed = shallowRef<{ at: number; file: FileAnswer } | null>(null)
function put(next: readonly FileAnswer[], focus: string) {
  emit('answer', next.length === 0 ? null : next)
  void nextTick(() => box.value?.querySelector<HTMLElement>(focus)?.focus())
}
function remove(at: number) {
  const file = files.value[at]
  if (file) removed.value = { at, file }
  put(files.value.toSpliced(at, 1), '.undo')
}
function takeBack() {
  if (!removed.value) return
  const { at, file } = removed.value
  removed.value = null
  put(files.value.toSpliced(at, 0, file), 'li .v-btn')
}
</script>

<template>
  <div
    ref="box"
    class="files"
    :class="{ over, invalid }"
    @dragover.prevent="over = true"
    @dragleave="over = false"
    @drop.prevent="drop"
  >
    <ul v-if="files.length > 0">
      <li
        v-for="(f, i) in files"
        :key="f.file"
      >
        <a
          v-if="addressOf"
          :href="addressOf(f.file)"
          download
          >{{ f.name }}</a><span v-else>{{ f.name }}</span>
        <span class="small quiet num">{{ readableBytes(f.bytes) }}</span><span class="spread" /><v-btn
          variant="text"
          :aria-label="`Remove ${f.name}`"
          @click="remove(i)"
          >Remove</v-btn
        >
      </li>
    </ul>
    <RemovedLine
      v-if="removed"
      :name="removed.file.name"
      @undo="takeBack"
    />
    <p
      v-for="name in sending"
      :key="name"
      class="small quiet"
      role="status"
    >
      Taking “{{ name }}” …
    </p>
    <v-file-input
      :id="id"
      v-model="picked"
      class="choose"
      :multiple="most > 1"
      :accept="accept"
      :placeholder="files.length > 0 && most === 1 ? 'Choose another file' : 'Choose a file'"
      :clearable="false"
      v-bind="fieldAttributes(props)"
      @update:model-value="choose"
    />
    <p class="small quiet">{{ hint }}; or drop it here</p>
    <v-alert
      v-for="(r, i) in refused"
      :key="i"
      type="error"
    >
      {{ r }}
    </v-alert>
  </div>
</template>

<style scoped>
.files {
  border: 1px dashed var(--control-line);
  background: var(--paper);
  padding: 14px;
  display: grid;
  gap: 8px;
  justify-items: start;
}
.files.over {
  border-color: var(--verdigris);
  background: var(--verdigris-wash);
}
.files.invalid {
  border: 2px solid var(--madder);
}
ul {
  width: 100%;
}
li {
  display: flex;
  gap: 8px;
  align-items: center;
  min-height: 36px;
  border-bottom: 1px dotted var(--line);
  overflow-wrap: anywhere;
}
.choose {
  width: 260px;
  max-width: 100%;
}
</style>
