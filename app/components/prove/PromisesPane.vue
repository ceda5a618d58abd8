<script setup lang="ts">
import { mdiClose } from '@mdi/js'
import { codeFromLabel, freeCode } from '#core/form/codes'
import type { Promised } from '#core/form/definition'

/** Sentences that are to hold in every complete response, each with its condition and whether it is proven. */
const draft = useDraft()
const findings = useFindings()
const promises = computed(() => draft.form?.promises ?? [])
const last = computed(() => draft.places.findLast(p => p.kind === 'section'))
const put = (next: readonly Promised[], merge: string | null = null) =>
  draft.edit([{ do: 'change', what: 'form', set: { promises: next.length > 0 ? next : null } }], merge)
const change = (i: number, part: Partial<Promised>, merge: string | null = null) =>
  put(
    promises.value.map((p, j) => (j === i ? { ...p, ...part } : p)),
    merge,
  )
const text = ref('')
function add() {
  const sentence = text.value.trim()
  if (!sentence) return
  const code = freeCode(codeFromLabel(sentence).slice(0, 40), new Set(promises.value.map(p => p.code)))
  put([...promises.value, { code, text: sentence, holds: 'true' }])
  editing.value = code
  text.value = ''
}
const broken = computed(
  () =>
    new Map(
      (findings.verdict?.findings ?? []).flatMap(f =>
        f.rule?.includes(':promise:') ? [[Number(f.rule.split(':').at(-1)), f] as const] : [],
      ),
    ),
)
/** The promise whose condition stands open. */
const editing = ref<string | null>(null)
function stateOf(p: Promised, i: number) {
  const found = broken.value.get(i)
  if (p.holds === 'true') return { tone: 'quiet', words: 'says nothing yet' }
  if (found)
    return found.code === 'undecided'
      ? { tone: 'risk', words: '▲ undecided' }
      : { tone: 'fault', words: '✕ not kept' }
  return findings.working || !findings.isWhole
    ? { tone: 'quiet', words: 'proving …' }
    : { tone: 'proven', words: '✓ proven' }
}
</script>

<template>
  <section
    class="pane"
    aria-label="Promises"
  >
    <h2>Promises</h2>
    <p class="quiet">
      A promise holds in <em>every</em> complete response, whatever is answered; a blank that makes it unknown
      breaks it. A broken one stops the release.
    </p>
    <div
      v-for="(p, i) in promises"
      :key="p.code"
      class="promise sheet"
    >
      <div class="row-flex">
        <span
          :class="stateOf(p, i).tone"
          class="state"
          >{{ stateOf(p, i).words }}</span
        >
        <v-text-field
          class="wide"
          :model-value="p.text"
          :aria-label="`Promise ${i + 1}`"
          maxlength="500"
          @input="change(i, { text: inputText($event) }, `promise${i}`)"
        />
        <IconButton
          :icon="mdiClose"
          name="Remove"
          @click="put(promises.toSpliced(i, 1))"
        />
      </div>
      <div
        v-if="editing !== p.code && p.holds !== 'true'"
        class="row-flex"
      >
        <RuleSentence
          words="It holds when"
          :text="p.holds"
        /><span class="spread" /><v-btn
          variant="text"
          @click="editing = p.code"
        >
          Edit
        </v-btn>
      </div>
      <RuleField
        v-else-if="last"
        words="It holds when"
        :text="p.holds === 'true' ? undefined : p.holds"
        :place="last"
        :part="String(i)"
        @change="change(i, { holds: $event ?? 'true' })"
        ><template #none><span class="small quiet">say when it holds</span></template></RuleField
      >
      <FindingRow
        v-if="broken.get(i)"
        :finding="broken.get(i)!"
      />
    </div>
    <form
      class="row-flex"
      @submit.prevent="add"
    >
      <v-text-field
        v-model="text"
        class="wide"
        placeholder="Nobody under 18 signs alone"
        aria-label="A new promise"
        maxlength="500"
      /><v-btn
        type="submit"
        :disabled="!text.trim()"
      >
        Promise
      </v-btn>
    </form>
  </section>
</template>

<style scoped>
.pane {
  padding: 20px 24px;
  display: grid;
  gap: 14px;
  max-width: 900px;
  align-content: start;
}
.state {
  min-width: 90px;
  font-weight: 600;
  font-size: 14px;
}
.state.fault {
  color: var(--madder);
}
.state.risk {
  color: var(--weld);
}
.state.quiet {
  font-weight: 400;
}
.promise {
  padding: 12px 16px;
  display: grid;
  gap: 8px;
}
.wide {
  flex: 1;
}
</style>
