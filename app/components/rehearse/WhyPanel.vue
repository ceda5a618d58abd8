<script setup lang="ts">
import { explainRequired, explainShown } from '#core/fill/explain'
import type { Filled, Frame } from '#core/fill/fill'
import { placeName, type Address } from '#core/form/walk'
import { RULE_WORDS } from '#core/form/rules'

/** Why something is shown, not shown or required: the rules, with the answers that decided each part. */
const props = defineProps<{ address: Address; filled: Filled; frame: Frame }>()
const emit = defineEmits<{ close: [] }>()
const draft = useDraft()
const place = computed(() => draft.places.find(p => p.address === props.address))
const shown = computed(() => (place.value ? props.frame.inPlay[place.value.order] === true : false))
const reasons = computed(() => (place.value ? explainShown(props.filled, props.frame, place.value) : []))
const step = computed(() =>
  props.filled.plan.sections[place.value?.section ?? 0]?.all.find(s => s.place.order === place.value?.order),
)
const required = computed(() => (step.value && shown.value ? explainRequired(props.frame, step.value) : []))
const box = useTemplateRef('box')
watch(
  () => props.address,
  () => void nextTick(() => box.value?.focus()),
  { immediate: true },
)
const whose = (order: number) =>
  order === place.value?.order ? '' : ` (${draft.places[order] ? placeName(draft.places[order]) : ''})`
</script>

<template>
  <div
    v-if="place"
    ref="box"
    class="why-panel"
    tabindex="-1"
    role="group"
    :aria-label="`Why: ${placeName(place)}`"
    @keydown.esc="emit('close')"
  >
    <div class="head">
      <strong>{{ shown ? 'Why is this shown?' : 'Why is this not shown?' }}</strong>
      <v-btn
        variant="text"
        @click="emit('close')"
      >
        Close
      </v-btn>
    </div>
    <p class="quiet small">{{ place.number }} {{ placeName(place) }}</p>
    <p
      v-if="reasons.length === 0"
      class="small"
    >
      It has no rule, and none stands around it: it always shows.
    </p>
    <template
      v-for="(r, i) in reasons"
      :key="i"
    >
      <p class="small quiet">
        {{ r.kind === 'route' ? 'The way through the form' : RULE_WORDS[r.kind] }}{{ whose(r.place.order) }}
      </p>
      <p
        v-if="r.words"
        class="small"
      >
        {{ r.words }}
      </p>
      <WhyPart
        v-if="r.part"
        :part="r.part"
      />
    </template>
    <template
      v-for="(r, i) in required"
      :key="`r${i}`"
    >
      <p class="small quiet">
        <strong>{{ r.outcome === true ? 'Why is it required?' : 'Why is it not required?' }}</strong>
      </p>
      <p
        v-if="r.words"
        class="small"
      >
        {{ r.words }}
      </p>
      <WhyPart
        v-if="r.part"
        :part="r.part"
      />
    </template>
  </div>
</template>

<style scoped>
.why-panel {
  background: var(--woad-wash);
  padding: 12px 16px;
  margin: 0 auto 14px;
  max-width: 672px;
  box-sizing: border-box;
  display: grid;
  gap: 4px;
}
.head {
  display: flex;
  justify-content: space-between;
  gap: 8px;
  align-items: baseline;
}
.why-panel:focus {
  outline: none;
}
</style>
