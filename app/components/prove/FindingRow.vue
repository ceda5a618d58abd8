<script setup lang="ts">
import type { Finding } from '#core/prove/finding'

const props = defineProps<{ finding: Finding, chosen?: boolean }>()
const draft = useDraft()
const rehearsal = useRehearsal()
const route = useRoute()
const MARKS = { fault: '✕', risk: '▲', advice: '●' } as const
const WORDS = { fault: 'Fault', risk: 'Risk', advice: 'Advice' } as const
const number = computed(() => draft.places.find(p => p.address === props.finding.address)?.number ?? '')

async function show() {
  if (!props.finding.witness) return
  rehearsal.open(props.finding.witness, props.finding.address)
  draft.select(props.finding.address)
  if (!route.path.endsWith('/write')) await navigateTo(`/forms/${draft.id}/write`)
}
function mend() {
  if (props.finding.mend) draft.edit(props.finding.mend.edits)
}
</script>

<template>
  <div class="finding" :class="[finding.severity, { chosen }]">
    <span class="sign" aria-hidden="true">{{ MARKS[finding.severity] }}</span>
    <div>
      <p><span class="hidden-words">{{ WORDS[finding.severity] }}: </span>{{ finding.sentence }}</p>
      <p class="small quiet">{{ number }} <code v-if="finding.at">{{ finding.at }}</code> · {{ finding.code }}<template v-if="finding.conflict.length > 1"> · {{ finding.conflict.length }} rules collide</template></p>
      <div class="row-flex">
        <button v-if="finding.witness" class="text-button" @click.stop="show">{{ finding.code === 'never-shown' ? 'Show the nearest miss' : 'Show me' }}</button>
        <button v-if="finding.mend" class="text-button" @click.stop="mend">Mend: {{ finding.mend.words }}</button>
      </div>
    </div>
  </div>
</template>

<style scoped>
.finding { display: grid; grid-template-columns: 28px 1fr; color: var(--ink); font-size: 14px; }
.finding p:first-child { font-weight: 600; }
.fault .sign { color: var(--madder); } .risk .sign { color: var(--weld); } .advice .sign { color: var(--woad); }
</style>
