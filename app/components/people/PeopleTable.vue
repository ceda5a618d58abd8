<script setup lang="ts">
import type { Person } from '#shared/api/people'
import { API } from '#shared/api/endpoints'
import { callApi, useApi } from '~/api/callApi'

/** Everybody in the workspace: invited, changed, suspended, let in again. */
const api = useApi()
const { data: people, refresh } = await useAsyncData('people', () => api(API.listPeople))
const { user } = useUserSession()
const { say } = useSaid()
const refusal = ref<ReturnType<typeof refusalOf> | null>(null)
const isInviting = ref(false)
const changing = shallowRef<Person | null>(null)
/** A link that was posted, to be handed over by hand too. */
const posted = ref<{ to: string; link: string } | null>(null)
const HEADERS = [
  { title: 'Name', key: 'name' },
  { title: 'E-mail', key: 'email' },
  { title: 'Role', key: 'role' },
  { title: 'State', key: 'state' },
  { title: 'Last seen', key: 'seenAt', nowrap: true },
  { title: '', key: 'acts', sortable: false, width: 96 },
] as const
const STATES: Record<Person['state'], string> = {
  invited: 'invited',
  active: 'can sign in',
  suspended: 'suspended',
}

function invited(to: string, link: string) {
  isInviting.value = false
  posted.value = { to, link: `${window.location.origin}${link}` }
  void refresh()
}
async function inviteAgain({ id, name }: Person) {
  refusal.value = null
  try {
    const { link } = await callApi(API.inviteAgain, { params: { id } })
    invited(name, link)
  } catch (error) {
    refusal.value = refusalOf(error)
  }
}
async function copy(link: string) {
  await navigator.clipboard.writeText(link)
  say('The link is copied.')
}
async function changed(sentence: string) {
  changing.value = null
  say(sentence)
  await refresh()
}
</script>

<template>
  <section
    class="part"
    aria-label="People"
  >
    <div class="row-flex">
      <p class="quiet">{{ counted((people ?? []).length, 'person', 'people') }} in this workspace.</p>
      <span class="spread" />
      <v-btn
        variant="flat"
        color="primary"
        @click="isInviting = true"
      >
        Invite somebody…
      </v-btn>
    </div>
    <RefusalAlert :refusal="refusal" />
    <v-alert
      v-if="posted"
      type="success"
      role="status"
      closable
      @click:close="posted = null"
    >
      <p>
        {{ posted.to }} has been posted a link that counts for seven days. You may hand it over yourself as
        well:
      </p>
      <div class="row-flex">
        <code class="link">{{ posted.link }}</code>
        <v-btn
          variant="text"
          @click="copy(posted.link)"
        >
          Copy the link
        </v-btn>
      </div>
    </v-alert>
    <div class="sheet">
      <v-data-table
        :headers="HEADERS"
        :items="people ?? []"
        :items-per-page="50"
        :hide-default-footer="(people ?? []).length <= 50"
      >
        <template #[`item.name`]="{ item }"
          ><strong>{{ item.name }}</strong
          ><span
            v-if="item.id === user?.id"
            class="quiet"
          >
            (you)</span
          ></template
        >
        <template #[`item.role`]="{ item }">{{ ROLE_NAMES[item.role] }}</template>
        <template #[`item.state`]="{ item }"
          ><span :class="{ risk: item.state === 'suspended' }">{{ STATES[item.state] }}</span
          ><span
            v-if="item.hasSecondFactor"
            class="quiet small"
          >
            with second factor</span
          ><v-btn
            v-if="item.state === 'invited'"
            variant="text"
            :aria-label="`Invite ${item.name} again`"
            @click="inviteAgain(item)"
          >
            Invite again
          </v-btn></template
        >
        <template #[`item.seenAt`]="{ item }"
          ><span class="quiet">{{ item.seenAt ? readableDay(item.seenAt) : 'not yet' }}</span></template
        >
        <template #[`item.acts`]="{ item }"
          ><v-btn
            variant="text"
            :aria-label="`Change ${item.name}`"
            @click="changing = item"
          >
            Change…
          </v-btn></template
        >
      </v-data-table>
    </div>
    <InviteDialog
      v-if="isInviting"
      @close="isInviting = false"
      @invited="invited"
    />
    <PersonDialog
      v-if="changing"
      :person="changing"
      :people="people ?? []"
      @close="changing = null"
      @changed="changed"
    />
  </section>
</template>

<style scoped>
.part {
  display: grid;
  gap: 16px;
}
.link {
  overflow-wrap: anywhere;
}
</style>
