<script setup lang="ts">
import { mdiClose } from '@mdi/js'
import { codeFromLabel, freeCode } from '#core/form/codes'
import { renamePartyEdits } from '#core/form/turnCodes'
import type { Party } from '#core/form/turns'

/** Who has a role in a response. */
const draft = useDraft()
const parties = computed(() => draft.form?.parties ?? [])
const turns = computed(() => draft.form?.turns ?? [])
const put = (next: readonly Party[], merge: string | null) =>
  draft.edit([{ do: 'change', what: 'form', set: { parties: next.length > 0 ? next : null } }], merge)
/** Calls a party otherwise; while nothing was released yet, the codes of its turns follow. */
function rename(i: number, label: string) {
  const party = parties.value[i]
  if (!party || !draft.form) return
  const follows = draft.releases.length === 0
  draft.edit(renamePartyEdits(draft.form, party.code, label, follows), `party${i}`)
}
const name = ref('')
function add() {
  const label = name.value.trim()
  if (!label) return
  put(
    [
      ...parties.value,
      { code: freeCode(codeFromLabel(label), new Set(parties.value.map(p => p.code))), name: label },
    ],
    null,
  )
  name.value = ''
}
function setOffice(i: number) {
  const party = parties.value[i]
  if (!party) return
  const { office, ...rest } = party
  put(parties.value.with(i, office ? rest : { ...rest, office: true }), null)
}
const isUsed = (code: string) => turns.value.some(t => t.party === code)
</script>

<template>
  <div class="stack">
    <p
      v-if="parties.length === 0"
      class="small quiet"
    >
      One respondent answers all. Add parties where several take turns at one response, such as the owner and
      then the yard office.
    </p>
    <div
      v-for="(p, i) in parties"
      :key="p.code"
      class="row-flex"
    >
      <code>{{ p.code }}</code>
      <v-text-field
        :model-value="p.name"
        :aria-label="`Party ${i + 1}: name`"
        maxlength="200"
        @input="rename(i, inputText($event))"
      />
      <label class="small"
        ><v-checkbox-btn
          :model-value="p.office === true"
          @change="setOffice(i)"
        />
        office</label
      >
      <IconButton
        :icon="mdiClose"
        name="Remove"
        :disabled="isUsed(p.code)"
        :title="isUsed(p.code) ? 'It has a turn; remove that first.' : ''"
        @click="put(parties.toSpliced(i, 1), null)"
      />
    </div>
    <form
      class="row-flex"
      @submit.prevent="add"
    >
      <v-text-field
        v-model="name"
        placeholder="Boat owner"
        aria-label="Name of a new party"
        maxlength="200"
      /><v-btn
        type="submit"
        variant="text"
        :disabled="!name.trim()"
      >
        + party
      </v-btn>
    </form>
  </div>
</template>

<style scoped>
.stack {
  display: grid;
  gap: 6px;
}
code {
  width: 110px;
  overflow: hidden;
  text-overflow: ellipsis;
}
</style>
