<script setup lang="ts">
import type { Opening } from '#core/form/opening'

/** When a form opens and closes, how many responses it takes, and what it says while it takes none. They hold when they are saved. */
const props = defineProps<{
  opening: Opening
  busy: boolean
  save: (settings: Opening) => Promise<boolean>
}>()
const ownZone = Intl.DateTimeFormat().resolvedOptions().timeZone
const begin = { ...props.opening }
// Nobody has chosen a time yet: then the zone is that of whoever looks.
if (begin.opensAt === null && begin.closesAt === null) begin.zone = ownZone
const form = ref({ ...begin, opensAt: begin.opensAt ?? '', closesAt: begin.closesAt ?? '' })
const zones = [...new Set(['UTC', ownZone, ...Intl.supportedValuesOf('timeZone')])]
const { corrections: begunWith } = props.opening
const correcting = ref<'never' | 'open' | 'days'>(typeof begunWith === 'number' ? 'days' : begunWith)
const days = ref<number | null>(typeof begunWith === 'number' ? begunWith : 14)
const CORRECTING = [
  { value: 'never', title: 'never' },
  { value: 'open', title: 'while the form is open' },
  { value: 'days', title: 'for some days' },
]
const isSaved = ref(false)
const isWrong = computed(
  () => form.value.opensAt !== '' && form.value.closesAt !== '' && form.value.opensAt >= form.value.closesAt,
)
const TEXTS = [
  { key: 'before', label: 'Before it opens', hint: 'Answers are taken from …' },
  { key: 'between', label: 'While it is closed by hand', hint: 'No answers are taken at the moment.' },
  { key: 'after', label: 'After it has closed', hint: 'Answers were taken until …' },
  { key: 'full', label: 'When it is full', hint: 'As many answers as were looked for have come in …' },
] as const
watch([form, correcting, days], () => (isSaved.value = false), { deep: true })
async function saveAll() {
  const { opensAt, closesAt, ...others } = form.value
  const corrections = correcting.value === 'days' ? (days.value ?? 1) : correcting.value
  isSaved.value = await props.save({
    ...others,
    corrections,
    opensAt: opensAt || null,
    closesAt: closesAt || null,
  })
}
</script>

<template>
  <form
    class="settings"
    @submit.prevent="saveAll"
  >
    <div class="times">
      <LabelledField
        v-model="form.opensAt"
        label="Opens"
        type="datetime-local"
      />
      <LabelledField
        v-model="form.closesAt"
        label="Closes"
        type="datetime-local"
      />
      <label class="zone">
        Time zone
        <v-autocomplete
          v-model="form.zone"
          :items="zones"
        />
      </label>
    </div>
    <p
      v-if="isWrong"
      role="alert"
      class="fault small"
    >
      It has to open before it closes.
    </p>
    <div class="row-flex numbers">
      <label class="row-flex">
        Who has begun may send until
        <NumberField
          v-model="form.lateBy"
          whole
          :min="0"
        />
        minutes later
      </label>
      <label class="row-flex">
        At most
        <NumberField
          v-model="form.most"
          whole
          :min="1"
        />
        responses in all
      </label>
    </div>
    <label class="row-flex corrections">
      Whoever sent a response may correct it
      <v-select
        v-model="correcting"
        :items="CORRECTING"
      />
      <template v-if="correcting === 'days'">
        for
        <NumberField
          v-model="days"
          whole
          :min="1"
        />
        days
      </template>
    </label>
    <label
      v-for="t in TEXTS"
      :key="t.key"
      class="words"
    >
      {{ t.label }}
      <v-textarea
        v-model="form[t.key]"
        rows="1"
        auto-grow
        :placeholder="t.hint"
        maxlength="4000"
      />
    </label>
    <v-checkbox
      v-model="form.countsPages"
      label="Count how far people come and how long pages take, without who they are"
    />
    <div class="row-flex">
      <v-btn
        type="submit"
        variant="flat"
        color="primary"
        :disabled="busy || isWrong"
      >
        Save
      </v-btn>
      <span
        v-if="isSaved"
        role="status"
        class="proven small"
        >✓ In force</span
      >
    </div>
  </form>
</template>

<style scoped>
.settings {
  display: grid;
  gap: 14px;
}
.times {
  display: grid;
  grid-template-columns: 1fr 1fr 1.2fr;
  gap: 14px;
}
.zone,
.words {
  display: grid;
  gap: 4px;
  font-size: 14px;
}
.corrections {
  font-size: 14px;
}
.corrections .v-select {
  flex: none;
  width: 220px;
}
.numbers {
  gap: 28px;
  font-size: 14px;
}
@media (max-width: 700px) {
  .times {
    grid-template-columns: 1fr;
  }
}
</style>
