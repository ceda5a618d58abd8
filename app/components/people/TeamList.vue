<script setup lang="ts">
import { API } from '#shared/api/endpoints'
import type { Team } from '#shared/api/people'
import { callApi, useApi } from '~/api/callApi'

/** The teams of the workspace: what is shared with one is shared with everybody in it. */
const api = useApi()
const { data, refresh } = await useAsyncData('directory', () => api(API.loadDirectory))
const { say } = useSaid()
const editing = shallowRef<Team | null>(null)
const refusal = ref<ReturnType<typeof refusalOf> | null>(null)
const nameOf = (id: string) => data.value?.people.find(p => p.id === id)?.name
const namesOf = (team: Team) => team.members.flatMap(id => nameOf(id) ?? [])
const NEW: Team = { id: '', name: '', members: [] }

async function run(what: () => Promise<unknown>, sentence: string) {
  refusal.value = null
  try {
    await what()
    editing.value = null
    say(sentence)
    await refresh()
  } catch (error) {
    refusal.value = refusalOf(error)
  }
}
const save = ({ id, ...body }: Team) =>
  run(
    () => (id === '' ? callApi(API.createTeam, { body }) : callApi(API.changeTeam, { params: { id }, body })),
    `The team “${body.name}” is kept.`,
  )
const remove = ({ id, name }: Team) =>
  run(() => callApi(API.deleteTeam, { params: { id } }), `The team “${name}” is gone.`)
function begin(team: Team) {
  refusal.value = null
  editing.value = team
}
</script>

<template>
  <section
    class="part"
    aria-label="Teams"
  >
    <div class="row-flex">
      <p class="quiet">What is shared with a team is shared with everybody in it.</p>
      <span class="spread" />
      <v-btn
        variant="flat"
        color="primary"
        @click="begin(NEW)"
      >
        New team…
      </v-btn>
    </div>
    <v-empty-state
      v-if="data?.teams.length === 0"
      class="sheet"
      title="No teams yet"
      text="Put those together who work on the same forms: a form is then shared with all of them at once."
    />
    <div
      v-for="t in data?.teams"
      :key="t.id"
      class="sheet team row-flex"
    >
      <div>
        <strong>{{ t.name }}</strong>
        <p class="quiet small">{{ namesOf(t).join(', ') || 'Nobody yet' }}</p>
      </div>
      <span class="spread" />
      <v-btn
        variant="text"
        :aria-label="`Change the team ${t.name}`"
        @click="begin(t)"
      >
        Change…
      </v-btn>
    </div>
    <TeamDialog
      v-if="editing"
      :key="editing.id"
      :team="editing"
      :people="data?.people ?? []"
      :refusal="refusal"
      @close="editing = null"
      @save="save"
      @delete="remove"
    />
  </section>
</template>

<style scoped>
.part {
  display: grid;
  gap: 12px;
}
.team {
  padding: 12px 18px;
}
</style>
