<script setup lang="ts">
import { ANYWHERE, type Opening } from '#core/form/opening'
import type { LoadedOpening } from '#shared/api/openings'

/** The form’s address as it is shown elsewhere: short, as a QR code, or with the form inside another page. */
const props = defineProps<{
  opening: LoadedOpening
  address: string
  mayChange: boolean
  save: (settings: Opening) => Promise<boolean>
  makeCode: () => Promise<boolean>
}>()
const sites = ref(props.opening.settings.embedOn.join('\n'))
const isSaved = ref(false)
watch(sites, () => (isSaved.value = false))
const short = computed(() => (props.opening.code === null ? null : linkAddress(`/s/${props.opening.code}`)))
const snippet = computed(
  () => `<script src="${linkAddress('/embed.js')}" data-form="${props.address}" async><` + '/script>',
)
const copied = ref('')
async function copy(text: string) {
  await navigator.clipboard.writeText(text)
  copied.value = text
}
async function saveSites() {
  const embedOn = sites.value.split(/\s+/).filter(Boolean)
  isSaved.value = await props.save({ ...props.opening.settings, embedOn })
}
</script>

<template>
  <div class="tools">
    <QrCode
      :address="short ?? address"
      name="form"
    />
    <div class="beside">
      <h3>Short address</h3>
      <div
        v-if="short"
        class="row-flex"
      >
        <code data-testid="short">{{ short }}</code>
        <v-btn
          variant="text"
          @click="copy(short)"
        >
          {{ copied === short ? 'Copied' : 'Copy' }}
        </v-btn>
      </div>
      <div v-else>
        <v-btn
          :disabled="!mayChange"
          @click="makeCode"
        >
          Make a short address
        </v-btn>
      </div>
      <h3>Inside another page</h3>
      <template v-if="mayChange">
        <v-textarea
          v-model="sites"
          rows="1"
          auto-grow
          aria-label="Sites whose pages may show the form, one on each line"
          :placeholder="`https://wherry.example, or ${ANYWHERE} for every site`"
        />
        <div class="row-flex">
          <v-btn @click="saveSites"> Save the sites </v-btn>
          <span
            v-if="isSaved"
            role="status"
            class="proven small"
            >✓ In force</span
          >
        </div>
      </template>
      <template v-if="opening.settings.embedOn.length > 0">
        <p class="small quiet">Put this where the form is to stand; its frame is as high as the form.</p>
        <pre class="code small">{{ snippet }}</pre>
        <div>
          <v-btn
            variant="text"
            @click="copy(snippet)"
          >
            {{ copied === snippet ? 'Copied' : 'Copy' }}
          </v-btn>
        </div>
      </template>
      <p
        v-else
        class="small quiet"
      >
        No other site may show the form inside its pages.
      </p>
    </div>
  </div>
</template>

<style scoped>
.tools {
  display: grid;
  grid-template-columns: auto minmax(0, 1fr);
  gap: 28px;
}
.beside {
  display: grid;
  gap: 8px;
  align-content: start;
}
h3 {
  font-size: 15px;
}
pre {
  white-space: pre-wrap;
  overflow-wrap: anywhere;
}
@media (max-width: 700px) {
  .tools {
    grid-template-columns: 1fr;
  }
}
</style>
