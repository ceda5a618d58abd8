<script setup lang="ts">
import type { Way } from '#shared/api/ways'
import { useWays } from '~/composables/release/useWays'

/** The further ways into the form: links for the places where it is shown, and personal links. */
const draft = useDraft()
const all = useWays(draft.id)
await all.load()
const { ways, refusal, busy } = all
const links = computed(() => ways.value.filter(w => w.kind === 'link'))
const edited = ref<Way | 'new' | null>(null)
const drawn = ref<Way | null>(null)
const copied = ref('')
const addressOf = (way: Way) => linkAddress(`/f/${way.token}`)
const came = ({ taken, most }: Way) =>
  most === null ? counted(taken, 'response') : `${taken} of ${most} responses`
const valuesOf = ({ values }: Way) =>
  Object.entries(values)
    .map(([code, value]) => `${code}: ${value}`)
    .join(' · ')
async function copy(way: Way) {
  await navigator.clipboard.writeText(addressOf(way))
  copied.value = way.id
}
</script>

<template>
  <section
    class="sheet ways"
    aria-label="Ways in"
  >
    <h2>Ways in</h2>
    <RefusalAlert :refusal="refusal" />
    <div class="row-flex">
      <h3 class="spread">Links with a name</h3>
      <v-btn @click="edited = 'new'"> Add a link </v-btn>
    </div>
    <p
      v-if="links.length === 0"
      class="quiet small"
    >
      One for each place where the form is shown, a poster or a letter, tells which responses came from there.
    </p>
    <div
      v-for="way in links"
      :key="way.id"
      class="way"
    >
      <div class="row-flex">
        <strong :class="{ quiet: way.isClosed }">{{ way.name }}</strong>
        <span class="quiet small">{{ came(way) }}</span>
        <span
          v-if="way.isClosed"
          class="risk small"
          >closed</span
        >
        <span class="spread" />
        <v-btn
          variant="text"
          @click="copy(way)"
        >
          {{ copied === way.id ? 'Copied' : 'Copy the link' }}
        </v-btn>
        <v-btn
          variant="text"
          @click="drawn = way"
        >
          QR
        </v-btn>
        <v-btn
          variant="text"
          :disabled="busy"
          @click="edited = way"
        >
          Change
        </v-btn>
      </div>
      <div class="row-flex small">
        <a
          class="code"
          target="_blank"
          :href="`/f/${way.token}`"
          >{{ addressOf(way) }}</a
        >
        <span
          v-if="valuesOf(way)"
          class="quiet"
          >{{ valuesOf(way) }}</span
        >
      </div>
    </div>
    <InvitedPeople :ways="all" />
    <WayDialog
      v-if="edited"
      :way="edited === 'new' ? null : edited"
      :ways="all"
      @close="edited = null"
    />
    <PlainDialog
      v-if="drawn"
      :title="drawn.name"
      :width="460"
      @close="drawn = null"
    >
      <QrCode
        :address="addressOf(drawn)"
        :name="drawn.name"
      />
    </PlainDialog>
  </section>
</template>

<style scoped>
.ways {
  display: grid;
  gap: 12px;
  padding: 20px 24px;
}
h3 {
  font-size: 15px;
}
.way {
  display: grid;
  gap: 2px;
  border-top: 1px solid var(--line);
  padding-top: 8px;
}
.code {
  overflow-wrap: anywhere;
}
</style>
