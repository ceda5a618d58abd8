<script setup lang="ts">
import { riskKey } from '#core/prove/acceptance'
import type { Finding } from '#core/prove/finding'
import type { FindingsView } from '~/composables/prove/useFindingsView'

/** The findings in groups; arrows travel through them, keys act on the open one. */
const props = defineProps<{ view: FindingsView }>()
const findings = useFindings()
const list = useTemplateRef('list')
const rows =
  useTemplateRef<
    { is: (finding: Finding) => boolean; show: () => Promise<void>; mend: () => void; ask: () => void }[]
  >('rows')
const { all, shown, open, chosen } = props.view
const beginsGroup = (i: number) => {
  const [before, own] = [shown.value[i - 1], shown.value[i]]
  return !before || !own || props.view.groupOf(before) !== props.view.groupOf(own)
}
const nothing = computed(() =>
  all.value.length === 0
    ? 'No fault, no risk, no advice. The form can be released.'
    : 'Nothing of this kind here.',
)

const ACTS: Record<string, 'show' | 'mend' | 'ask'> = { Enter: 'show', m: 'mend', a: 'ask' }
const STEPS: Record<string, number> = { ArrowDown: 1, ArrowUp: -1 }
const hasModifier = (event: KeyboardEvent) => event.ctrlKey || event.metaKey || event.altKey
const isOnRow = (event: KeyboardEvent) =>
  event.target instanceof HTMLElement && event.target.getAttribute('role') === 'listitem'
function onKey(event: KeyboardEvent) {
  const act = isOnRow(event) && !hasModifier(event) ? ACTS[event.key] : undefined
  const step = STEPS[event.key]
  if (!act && step === undefined) return
  event.preventDefault()
  if (act) actOnOpen(act)
  else if (step !== undefined) travel(step)
}
function actOnOpen(act: 'show' | 'mend' | 'ask') {
  const finding = open.value
  if (finding) void rows.value?.find(r => r.is(finding))?.[act]()
}
function travel(by: number) {
  props.view.travel(by)
  void nextTick(() => list.value?.querySelector<HTMLElement>('.item.chosen')?.focus())
}
</script>

<template>
  <div
    ref="list"
    role="list"
    aria-label="Findings"
    class="list"
    @keydown="onKey"
  >
    <template
      v-for="(f, i) in shown"
      :key="riskKey(f)"
    >
      <h3
        v-if="beginsGroup(i)"
        class="group"
        role="presentation"
      >
        {{ view.groupOf(f) }}
      </h3>
      <div
        class="item"
        :class="[view.weightOf(f), { chosen: open === f }]"
        role="listitem"
        :tabindex="open === f ? 0 : -1"
        :aria-current="open === f ? 'true' : undefined"
        @click="chosen = i"
      >
        <FindingRow
          ref="rows"
          :finding="f"
          :chosen="open === f"
        />
      </div>
    </template>
  </div>
  <p
    v-if="findings.isWhole && shown.length === 0"
    class="quiet none"
  >
    {{ nothing }}
  </p>
</template>

<style scoped>
.item {
  padding: 12px 20px;
  border-bottom: 1px solid var(--line);
  cursor: pointer;
}
.item.chosen {
  background: var(--soft);
  box-shadow: inset 0 0 0 1px var(--slate);
}
.item.chosen.fault {
  background: var(--madder-wash);
  box-shadow: inset 0 0 0 1px var(--madder);
  color: var(--ink);
}
.group {
  font-size: 13px;
  padding: 10px 20px 4px;
  color: var(--slate);
  font-weight: 600;
}
.none {
  padding: 32px 24px;
}
</style>
