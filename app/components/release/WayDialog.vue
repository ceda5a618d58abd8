<script setup lang="ts">
import { API } from '#shared/api/endpoints'
import type { Way } from '#shared/api/ways'
import { callApi } from '~/api/callApi'
import type { Ways } from '~/composables/release/useWays'

/** A link with a name: what it answers by itself, how many responses it takes, and whether it is open. */
const props = defineProps<{ way: Way | null; ways: Ways }>()
const emit = defineEmits<{ close: [] }>()
const draft = useDraft()
const name = ref(props.way?.name ?? '')
const most = ref<number | null>(props.way?.most ?? null)
const values = ref<Record<string, string>>({ ...props.way?.values })
const hidden = computed(() =>
  draft.places.flatMap(({ code, node }) =>
    'type' in node && node.type === 'hidden' ? [{ code, label: node.label || code }] : [],
  ),
)
const { refusal, busy, params } = props.ways
async function close(done: Promise<boolean>) {
  if (await done) emit('close')
}
function save() {
  const brought = Object.fromEntries(Object.entries(values.value).filter(([, value]) => value !== ''))
  const body = { name: name.value, most: most.value, values: brought }
  const { way, ways } = props
  return close(way ? ways.change(way, body) : ways.act(() => callApi(API.makeWay, { params, body })))
}
</script>

<template>
  <PlainDialog
    :title="way ? way.name : 'A link with a name'"
    :width="520"
    @close="emit('close')"
  >
    <form
      id="way"
      class="fields"
      @submit.prevent="save"
    >
      <RefusalAlert :refusal="refusal" />
      <LabelledField
        v-model="name"
        label="Name"
        hint="Where it is shown: Poster at the slip"
        required
      />
      <LabelledField
        v-for="h in hidden"
        :key="h.code"
        :model-value="values[h.code] ?? ''"
        :label="`Answers “${h.label}” with`"
        @update:model-value="values[h.code] = $event"
      />
      <p
        v-if="hidden.length === 0"
        class="small quiet"
      >
        A link can answer the hidden questions of a form by itself; this one has none.
      </p>
      <label class="row-flex">
        Takes at most
        <NumberField
          v-model="most"
          whole
          :min="1"
        />
        responses
      </label>
    </form>
    <template #actions>
      <v-btn
        type="submit"
        form="way"
        variant="flat"
        color="primary"
        :disabled="busy || name.trim() === ''"
      >
        {{ way ? 'Save' : 'Make the link' }}
      </v-btn>
      <v-btn
        v-if="way"
        :disabled="busy"
        @click="close(ways.change(way, { isClosed: !way.isClosed }))"
      >
        {{ way.isClosed ? 'Open the link again' : 'Close the link' }}
      </v-btn>
      <v-btn
        v-if="way?.taken === 0"
        :disabled="busy"
        @click="close(ways.remove(way))"
      >
        Remove
      </v-btn>
      <span class="spread" />
      <v-btn
        variant="text"
        @click="emit('close')"
      >
        Leave it
      </v-btn>
    </template>
  </PlainDialog>
</template>

<style scoped>
.fields {
  display: grid;
  gap: 14px;
  font-size: 14px;
}
</style>
