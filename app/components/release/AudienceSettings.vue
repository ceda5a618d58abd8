<script setup lang="ts">
import type { Audience } from '#core/form/audience'
import { API } from '#shared/api/endpoints'
import { callApi } from '~/api/callApi'

/** Who may answer, how often, and with what proof. */
const props = defineProps<{
  audience: Audience
  hasPassphrase: boolean
  busy: boolean
  save: (audience: Audience) => Promise<boolean>
  savePassphrase: (passphrase: string | null) => Promise<boolean>
}>()
const form = ref({ ...props.audience, listed: props.audience.listed.join('\n') })
const passphrase = ref('')
const isSaved = ref(false)
watch(form, () => (isSaved.value = false), { deep: true })
const { data: directory } = useLazyAsyncData('directory', () => callApi(API.loadDirectory), { server: false })
const teams = computed(() => (directory.value?.teams ?? []).map(t => t.name))
const isKnown = computed(() => form.value.who !== 'all')
async function saveAll() {
  const listed = form.value.listed.split(/[\s,;]+/).filter(Boolean)
  isSaved.value = await props.save({ ...form.value, listed })
}
async function setPassphrase(to: string | null) {
  if (await props.savePassphrase(to)) passphrase.value = ''
}
</script>

<template>
  <form
    class="audience"
    @submit.prevent="saveAll"
  >
    <v-radio-group
      v-model="form.who"
      aria-label="Who may answer"
    >
      <v-radio
        v-for="(words, who) in AUDIENCE_WORDS"
        :key="who"
        :value="who"
        :label="words"
      />
    </v-radio-group>
    <v-textarea
      v-if="form.who === 'listed'"
      v-model="form.listed"
      rows="2"
      auto-grow
      aria-label="Addresses, one on each line"
      placeholder="oda@wherry.example"
    />
    <label
      v-if="form.who === 'team'"
      class="field"
    >
      Team
      <v-select
        v-model="form.team"
        :items="teams"
      />
    </label>
    <label class="row-flex">
      Each person answers at most
      <NumberField
        v-model="form.each"
        whole
        :min="1"
      />
      times
    </label>
    <p class="small quiet">
      A person is known by a personal link or by signing in{{
        isKnown ? '' : '; whoever just has the link can’t be counted'
      }}.
    </p>
    <v-checkbox
      v-model="form.isAnonymous"
      label="Anonymous: nothing of whoever answers is kept with a response"
    />
    <label class="row-flex">
      From one source at most
      <NumberField
        v-model="form.perHour"
        whole
        :min="1"
      />
      responses an hour
    </label>
    <v-checkbox
      v-model="form.isGuarded"
      label="Guarded: a browser reckons for a moment before it sends, so that programs can’t send in masses"
    />
    <div class="row-flex">
      <v-btn
        type="submit"
        variant="flat"
        color="primary"
        :disabled="busy"
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
  <form
    class="row-flex passphrase"
    @submit.prevent="setPassphrase(passphrase)"
  >
    <LabelledField
      v-model="passphrase"
      :label="hasPassphrase ? 'Another passphrase' : 'Passphrase that opens the form'"
    />
    <v-btn
      type="submit"
      :disabled="busy || passphrase.trim().length < 4"
    >
      Set
    </v-btn>
    <v-btn
      v-if="hasPassphrase"
      :disabled="busy"
      @click="setPassphrase(null)"
    >
      Ask for none
    </v-btn>
    <span
      v-if="hasPassphrase"
      class="small quiet"
      >A passphrase is asked for.</span
    >
  </form>
</template>

<style scoped>
.audience {
  display: grid;
  gap: 10px;
  font-size: 14px;
}
.field {
  display: grid;
  gap: 4px;
  max-width: 320px;
}
.passphrase {
  align-items: end;
  border-top: 1px solid var(--line);
  margin-top: 14px;
  padding-top: 14px;
}
</style>
