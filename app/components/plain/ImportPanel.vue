<script setup lang="ts">
import { strFromU8, unzipSync } from 'fflate'
import { readFormText, type ShapeProblem } from '#core/form/read'
import { rulesOf } from '#core/form/rules'
import { listPlaces } from '#core/form/walk'
import { prove } from '#core/prove/prove'
import type { Form } from '#core/form/definition'

/** What files would bring: looked at first, then brought in. A zip may hold several definitions. */
const props = defineProps<{ files: File[] }>()
const emit = defineEmits<{ close: []; bring: [forms: Form[]] }>()
interface Looked {
  name: string
  form: Form | null
  problems: ShapeProblem[]
  sections: number
  questions: number
  rules: number
  lists: number
  faults: number
  wanted: boolean
}
const looked = ref<Looked[]>([])
const busy = ref(true)
const LARGEST = 60_000_000

function look(name: string, text: string): Looked {
  const { form, problems } = readFormText(text)
  if (!form)
    return {
      name,
      form: null,
      problems: problems ?? [],
      sections: 0,
      questions: 0,
      rules: 0,
      lists: 0,
      faults: 0,
      wanted: false,
    }
  const places = listPlaces(form)
  return {
    name,
    form,
    problems: [],
    sections: form.sections.length,
    questions: places.filter(p => p.kind === 'question').length,
    rules: rulesOf(form, places).length,
    lists: form.lists?.length ?? 0,
    faults: prove(form, dayHere()).findings.filter(f => f.severity === 'fault').length,
    wanted: true,
  }
}
const wrong = (name: string, sentence: string): Looked => ({
  name,
  form: null,
  problems: [{ path: '', sentence }],
  sections: 0,
  questions: 0,
  rules: 0,
  lists: 0,
  faults: 0,
  wanted: false,
})
async function open(file: File): Promise<Looked[]> {
  if (file.size > LARGEST) return [wrong(file.name, 'This file is too large to be a definition.')]
  if (!file.name.toLowerCase().endsWith('.zip')) return [look(file.name, await file.text())]
  try {
    const inside = unzipSync(new Uint8Array(await file.arrayBuffer()), {
      filter: entry => entry.name.endsWith('.json') && entry.originalSize <= LARGEST,
    })
    const found = Object.entries(inside).map(([name, bytes]) => look(name, strFromU8(bytes)))
    return found.length > 0 ? found : [wrong(file.name, 'There is no definition (*.form.json) in this zip.')]
  } catch {
    return [wrong(file.name, 'This is not a zip file that can be read.')]
  }
}
onMounted(async () => {
  for (const file of props.files) looked.value.push(...(await open(file)))
  busy.value = false
})
const chosen = computed(() => looked.value.flatMap(l => (l.form && l.wanted ? [toRaw(l.form)] : [])))
</script>

<template>
  <div
    class="sheet import"
    role="group"
    aria-label="What the files bring"
  >
    <v-skeleton-loader
      v-if="busy"
      type="list-item-two-line"
      aria-label="Looking at the files"
    />
    <div
      v-for="(l, i) in looked"
      :key="i"
      class="one"
    >
      <template v-if="l.form">
        <label
          ><v-checkbox-btn v-model="l.wanted" /> <strong>{{ l.form.title }}</strong>
          <code>{{ l.name }}</code></label
        >
        <p class="small">
          {{ l.sections }} sections, {{ l.questions }} questions, {{ l.rules }} rules, {{ l.lists }} lists;
          <span :class="l.faults > 0 ? 'fault' : 'proven'">{{
            l.faults > 0 ? `✕ ${l.faults} faults` : '✓ no fault'
          }}</span>
        </p>
      </template>
      <RefusalAlert
        v-else
        :refusal="{
          code: 'not-a-definition',
          sentence: `“${l.name}” is not a form definition; nothing was changed.`,
          problems: l.problems,
        }"
        places
      />
    </div>
    <div class="row-flex">
      <v-btn
        variant="flat"
        color="primary"
        :disabled="busy || chosen.length === 0"
        @click="emit('bring', chosen)"
      >
        {{ chosen.length > 1 ? `Bring in ${chosen.length} forms` : 'Bring it in' }}</v-btn><v-btn
        @click="emit('close')"
      >
        Leave it
      </v-btn>
    </div>
  </div>
</template>

<style scoped>
.import {
  padding: 16px 20px;
  display: grid;
  gap: 12px;
}
</style>
