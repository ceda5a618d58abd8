<script setup lang="ts">
import { contrastOf, LEAST_CONTRAST, USUAL_GROUND } from '#core/form/colours'
import { Look } from '#core/form/look'
import { API } from '#shared/api/endpoints'
import { callApi } from '~/api/callApi'

/** How the form looks to respondents; the rehearsal shows it at once. */
const draft = useDraft()
const { say } = useSaid()
const { user } = useUserSession()
const isMaker = computed(() => user.value?.role !== 'member')
const look = computed<Look>(() => draft.form?.look ?? {})
function set(part: Partial<Look>, merge: string | null = null) {
  const next = Object.entries({ ...look.value, ...part }).filter(([, value]) => value !== undefined)
  const value = next.length > 0 ? Object.fromEntries(next) : null
  draft.edit([{ do: 'change', what: 'form', set: { look: value } }], merge && `form:look:${merge}`)
}
/** How well the accent is read on the page. */
const contrast = computed(() => {
  const { accent, tone } = look.value
  if (accent === undefined) return null
  const measured = contrastOf(accent, tone ?? USUAL_GROUND)
  return { isFaint: measured < LEAST_CONTRAST, words: `${(Math.floor(measured * 10) / 10).toFixed(1)} to 1` }
})
const WIDTHS = [
  { value: 'narrow', title: 'narrow' },
  { value: '', title: 'as usual' },
  { value: 'wide', title: 'wide' },
]
const SIZES = [
  { value: 'small', title: 'small' },
  { value: '', title: 'as usual' },
  { value: 'large', title: 'large' },
]
/** What is as usual is not said. */
const { width: Width, textSize: TextSize } = Look.shape
const setWidth = (value: string) => set({ width: Width.catch(undefined).parse(value) })
const setSize = (value: string) => set({ textSize: TextSize.catch(undefined).parse(value) })

const name = ref(look.value.name ?? '')
const refusal = ref<ReturnType<typeof refusalOf> | null>(null)
/** The looks that the workspace keeps, to be taken. */
const kept = computed(() => [
  { value: '', title: 'none: a look of its own' },
  ...draft.looks.map(l => ({ value: l.name, title: l.name })),
])
function take(chosen: string) {
  const found = draft.looks.find(l => l.name === chosen)
  if (!found) return set({ name: undefined })
  name.value = found.name
  draft.edit([{ do: 'change', what: 'form', set: { look: found } }])
}
async function keep() {
  refusal.value = null
  const body = { ...look.value, name: name.value.trim() }
  try {
    await callApi(API.saveLook, { body })
    draft.rememberLook(body)
    set({ name: body.name })
    say(`The look “${body.name}” is kept for all forms of the workspace.`)
  } catch (error) {
    refusal.value = refusalOf(error)
  }
}
async function forget(gone: string) {
  refusal.value = null
  try {
    await callApi(API.removeLook, { query: { name: gone } })
    draft.forgetLook(gone)
    say(`The look “${gone}” is gone from the workspace; forms that use it keep theirs.`)
  } catch (error) {
    refusal.value = refusalOf(error)
  }
}
</script>

<template>
  <div class="look-fields">
    <template v-if="kept.length > 1">
      <span class="small quiet">Kept look</span>
      <v-select
        :model-value="draft.looks.some(l => l.name === look.name) ? look.name : ''"
        :items="kept"
        aria-label="Take a look that the workspace keeps"
        class="middling"
        @update:model-value="take"
      />
    </template>
    <span class="small quiet">Accent</span>
    <div class="row-flex">
      <ColourField
        name="Accent"
        :colour="look.accent"
        none="as usual"
        @change="set({ accent: $event }, 'accent')"
      />
      <span
        v-if="contrast"
        class="small"
        :class="{ faint: contrast.isFaint }"
        >contrast {{ contrast.words }}{{ contrast.isFaint ? ', hard to read' : '' }}</span
      >
    </div>
    <span class="small quiet">Page</span>
    <ColourField
      name="Page"
      :colour="look.tone"
      none="as usual, light and dark"
      @change="set({ tone: $event }, 'tone')"
    />
    <span class="small quiet">Logo</span>
    <PictureField
      name="Logo"
      :picture="look.logo"
      :room="{ width: 400, height: 120 }"
      @change="set({ logo: $event }, 'logo')"
    />
    <span class="small quiet">Heading</span>
    <PictureField
      name="Heading"
      :picture="look.heading"
      :room="{ width: 1400, height: 400 }"
      @change="set({ heading: $event }, 'heading')"
    />
    <span class="small quiet">Sizes</span>
    <div class="row-flex">
      <label class="small quiet"
        >width
        <v-select
          :model-value="look.width ?? ''"
          :items="WIDTHS"
          @update:model-value="setWidth"
      /></label>
      <label class="small quiet"
        >text
        <v-select
          :model-value="look.textSize ?? ''"
          :items="SIZES"
          @update:model-value="setSize"
      /></label>
      <label class="small quiet"
        >corners, in pixels
        <NumberField
          :model-value="look.corner ?? null"
          @update:model-value="set({ corner: $event ?? undefined }, 'corner')"
      /></label>
    </div>
    <template v-if="isMaker">
      <span class="small quiet">Keep as</span>
      <div class="row-flex">
        <v-text-field
          v-model="name"
          class="middling"
          placeholder="a name, for other forms"
          aria-label="Name of the look"
          maxlength="100"
          @keydown.enter.prevent="name.trim() && keep()"
        />
        <v-btn
          variant="text"
          :disabled="name.trim() === ''"
          @click="keep"
          >Keep in the workspace</v-btn
        >
        <v-btn
          v-if="draft.looks.some(l => l.name === name.trim())"
          variant="text"
          @click="forget(name.trim())"
          >Take out of the workspace</v-btn
        >
      </div>
      <RefusalAlert
        :refusal="refusal"
        class="whole"
      />
    </template>
  </div>
</template>

<style scoped>
.look-fields {
  display: grid;
  grid-template-columns: 72px minmax(0, 1fr);
  gap: 8px 12px;
  align-items: center;
}
.middling {
  max-width: 260px;
}
.whole {
  grid-column: 1 / -1;
}
.faint {
  color: var(--madder);
}
</style>
