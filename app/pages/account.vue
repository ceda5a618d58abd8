<script setup lang="ts">
import { API } from '#shared/api/endpoints'
import { callApi, useApi } from '~/api/callApi'

definePageMeta({ middleware: 'designer' })
useHead({ title: 'Account · Tobbin' })
const api = useApi()
const { data: account, refresh } = await useAsyncData('account', () => api(API.loadAccount))
const { fetch: refreshSession } = useUserSession()
const { say } = useSaid()
const name = ref(account.value?.name ?? '')
const refusal = ref<ReturnType<typeof refusalOf> | null>(null)

async function run(what: () => Promise<unknown>, done: string) {
  refusal.value = null
  try {
    await what()
    say(done)
    await Promise.all([refresh(), refreshSession()])
  } catch (error) {
    refusal.value = refusalOf(error)
  }
}
const rename = () =>
  run(() => callApi(API.changeAccount, { body: { name: name.value } }), 'Your name is kept.')
const end = (id: string) =>
  run(() => callApi(API.endSession, { params: { id } }), 'That browser is signed out.')
</script>

<template>
  <div>
    <TopBar title="Account" />
    <main
      v-if="account"
      class="account"
    >
      <RefusalAlert :refusal="refusal" />
      <section
        class="sheet"
        aria-labelledby="about-you"
      >
        <h2 id="about-you">You</h2>
        <form
          class="row-flex"
          @submit.prevent="rename"
        >
          <LabelledField
            v-model="name"
            label="Name"
            autocomplete="name"
            required
          />
          <v-btn
            type="submit"
            :disabled="!name.trim() || name === account.name"
          >
            Keep the name
          </v-btn>
        </form>
        <p class="quiet">You sign in as {{ account.email }}. {{ ROLE_ABOUT[account.role] }}</p>
      </section>
      <OwnPassword @changed="refresh" />
      <SecondFactor
        :is-set="account.hasSecondFactor"
        @changed="refresh"
      />
      <section
        class="sheet"
        aria-labelledby="browsers"
      >
        <h2 id="browsers">Browsers that are signed in</h2>
        <p class="quiet small">
          Each is signed out after 12 hours without use, and after 14 days in any case.
        </p>
        <v-table>
          <thead>
            <tr>
              <th>Browser</th>
              <th>From</th>
              <th>Since</th>
              <th>Last used</th>
              <th><span class="hidden-words">End</span></th>
            </tr>
          </thead>
          <tbody>
            <tr
              v-for="s in account.sessions"
              :key="s.id"
            >
              <td>{{ browserName(s.agent) }}</td>
              <td>
                <code>{{ s.source }}</code>
              </td>
              <td>{{ readableDay(s.openedAt) }}</td>
              <td>{{ s.isThis ? 'This one' : readableDay(s.seenAt) }}</td>
              <td>
                <v-btn
                  v-if="!s.isThis"
                  variant="text"
                  :aria-label="`Sign out ${browserName(s.agent)} from ${s.source}`"
                  @click="end(s.id)"
                >
                  Sign out
                </v-btn>
              </td>
            </tr>
          </tbody>
        </v-table>
      </section>
    </main>
  </div>
</template>

<style scoped>
.account {
  max-width: 760px;
  margin: 0 auto;
  padding: 32px 20px;
  display: grid;
  gap: 20px;
}
.account :deep(.sheet) {
  padding: 20px 24px;
  display: grid;
  gap: 14px;
}
.account :deep(h2) {
  font-size: 17px;
}
.row-flex {
  align-items: end;
}
.row-flex .labelled {
  flex: 1;
}
</style>
