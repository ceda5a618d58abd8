<script setup lang="ts">
import { bringPatternEngine } from '#core/expressions/patternEngine'
import { mdiRedo, mdiUndo } from '@mdi/js'
import { useEventListener, useIntervalFn } from '@vueuse/core'
import { placeName } from '#core/form/walk'
import { useFormCommands } from '~/composables/write/useFormCommands'

bringPatternEngine()
definePageMeta({ middleware: 'designer' })
const route = useRoute()
const draft = useDraft()
const rehearsal = useRehearsal()
const findings = useFindings()
const suggestions = useSuggestions()
const commands = useFormCommands()
const missing = ref<string | null>(null)
const isSharing = ref(false)
const stage = computed(() => route.path.split('/')[3] ?? 'write')
const id = String(route.params.id)
useHead({ title: () => `${draft.form?.title ?? 'Form'} · Tobbin` })

try {
  await draft.load(id)
  rehearsal.restore()
} catch (error) {
  missing.value = refusalOf(error).sentence
}

const saved = computed(() => {
  if (!draft.canEdit) return 'You may look'
  if (draft.isSuggesting) return 'You may suggest'
  if (draft.save.kind === 'saving') return 'Saving …'
  if (draft.save.kind === 'failed') return `Not saved: ${draft.save.refusal.sentence}`
  return draft.save.at ? `Saved ${readableTime(draft.save.at)}` : ''
})

/** How often to look for what somebody else has saved, in milliseconds. */
const LOOK_EVERY = 2_000
function keys(event: KeyboardEvent) {
  if (!(event.ctrlKey || event.metaKey) || event.altKey) return
  const key = event.key.toLowerCase()
  if (key !== 'z' && key !== 'y') return
  event.preventDefault()
  if (key === 'y' || event.shiftKey) draft.redo()
  else draft.undo()
}
function leaving(event: BeforeUnloadEvent) {
  if (draft.unsaved()) event.preventDefault()
}
onMounted(() => {
  findings.start()
  suggestions.start()
})
useIntervalFn(() => {
  if (document.visibilityState === 'visible') void draft.look()
}, LOOK_EVERY)
useEventListener('keydown', keys)
useEventListener('beforeunload', leaving)
onBeforeUnmount(() => void draft.flush())

function exportDefinition() {
  if (!draft.form) return
  const text = `${JSON.stringify(draft.form, null, 2)}\n`
  download(`${draft.form.code}.form.json`, [text], 'application/json')
}
const selectedName = computed(() => {
  const place = draft.places.find(p => p.address === draft.selected)
  return place ? placeName(place) : ''
})
type Clash = (typeof draft.clashes)[number]
const dismiss = (clash: Clash) => (draft.clashes = draft.clashes.filter(c => c !== clash))
function takeOffer(clash: Clash) {
  if (clash.offer) draft.edit([clash.offer.edit])
  dismiss(clash)
}
</script>

<template>
  <div
    v-if="missing"
    class="lost"
  >
    <TopBar />
    <main>
      <h1>{{ missing }}</h1>
      <p><NuxtLink to="/">Back to the forms</NuxtLink></p>
    </main>
  </div>
  <div
    v-else
    class="bench"
  >
    <TopBar
      :title="draft.form?.title ?? ''"
      :code="draft.form?.code"
    >
      <span
        class="small"
        :class="draft.save.kind === 'failed' ? 'fault' : 'quiet'"
        role="status"
        >{{ saved }}</span
      >
      <v-btn
        v-if="draft.save.kind === 'failed'"
        variant="text"
        @click="draft.load(id)"
      >
        Reload the form
      </v-btn>
      <IconButton
        :icon="mdiUndo"
        name="Undo"
        keys="Ctrl Z"
        :disabled="draft.past.length === 0"
        aria-keyshortcuts="Control+Z"
        @click="draft.undo()"
      />
      <IconButton
        :icon="mdiRedo"
        name="Redo"
        keys="Ctrl Shift Z"
        :disabled="draft.future.length === 0"
        aria-keyshortcuts="Control+Shift+Z"
        @click="draft.redo()"
      />
      <v-btn
        class="tool"
        @click="exportDefinition"
      >
        Export
      </v-btn>
      <v-btn
        v-if="draft.may('own')"
        class="tool"
        @click="isSharing = true"
      >
        Share…
      </v-btn>
      <CommandList
        :commands="commands"
        placeholder="A command, or a row by number, label or code"
      />
      <span
        class="hidden-words"
        aria-live="polite"
        >{{ selectedName }}</span
      >
    </TopBar>
    <StageRail :stage="stage" />
    <HeldBar v-if="draft.isSuggesting" />
    <v-alert
      v-if="draft.clashes.length > 0"
      class="clashes"
      type="warning"
    >
      <p
        v-for="(c, i) in draft.clashes"
        :key="i"
      >
        {{ c.sentence }}
        <v-btn
          v-if="c.offer"
          variant="text"
          @click="takeOffer(c)"
        >
          {{ c.offer.words }}
        </v-btn>
        <v-btn
          variant="text"
          @click="dismiss(c)"
        >
          {{ c.offer?.otherwise ?? 'Done' }}
        </v-btn>
      </p>
    </v-alert>
    <main class="stage"><NuxtPage /></main>
    <ShareDialog
      v-if="isSharing"
      :form="draft.id"
      :title="draft.form?.title ?? ''"
      @close="isSharing = false"
    />
  </div>
</template>

<style scoped>
.bench {
  display: flex;
  flex-direction: column;
  height: 100vh;
  overflow: hidden;
  position: relative;
}
.clashes {
  border-width: 0 0 1px;
  border-radius: 0;
}
.stage {
  flex: 1;
  min-height: 0;
}
.tool {
  min-height: 28px;
  padding: 1px 10px;
  font-size: 13px;
}
.lost main {
  padding: 64px 20px;
  max-width: 640px;
  margin: 0 auto;
  display: grid;
  gap: 16px;
}
</style>
