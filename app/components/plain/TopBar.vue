<script setup lang="ts">
import { API } from '#shared/api/endpoints'
import { callApi } from '~/api/callApi'

defineProps<{ title?: string; code?: string }>()
const { user, clear } = useUserSession()
const theme = useDesignTheme()
const initials = computed(
  () =>
    user.value?.name
      .split(' ')
      .map(w => w.charAt(0))
      .join('')
      .slice(0, 2) ?? '',
)
async function signOut() {
  await callApi(API.signOut)
  await clear()
  await navigateTo('/sign-in')
}
</script>

<template>
  <header class="top-bar">
    <NuxtLink
      to="/"
      class="mark"
      ><BobbinSign /> <strong>Tobbin</strong></NuxtLink
    >
    <template v-if="title !== undefined">
      <NuxtLink
        to="/"
        class="quiet plain-link"
        >Forms</NuxtLink
      >
      <span
        class="quiet"
        aria-hidden="true"
        >/</span
      >
      <h1 class="title">{{ title || 'Untitled form' }}</h1>
      <code
        v-if="code"
        class="quiet"
        >{{ code }}</code
      >
    </template>
    <span class="spread" />
    <slot />
    <v-menu
      v-if="user"
      location="bottom end"
    >
      <template #activator="{ props }">
        <v-btn
          variant="plain"
          v-bind="props"
          class="person"
          :aria-label="`${initials}: account of ${user.name}`"
        >
          {{ initials }}
        </v-btn>
      </template>
      <v-list
        density="compact"
        min-width="200"
      >
        <v-list-item
          :title="user.name"
          :subtitle="user.email"
        />
        <v-divider />
        <v-list-item
          title="Inbox"
          to="/inbox"
        />
        <v-list-item
          title="Dashboards"
          to="/dashboards"
        />
        <v-list-item
          title="Account"
          to="/account"
        />
        <v-list-item
          v-if="user.role === 'admin'"
          title="People, teams, record"
          to="/people"
        />
        <v-list-item
          :title="theme.name.value === 'dark' ? 'Light theme' : 'Dark theme'"
          @click="theme.turn()"
        />
        <v-list-item
          title="Sign out"
          @click="signOut"
        />
      </v-list>
    </v-menu>
  </header>
</template>

<style scoped>
.top-bar {
  display: flex;
  align-items: center;
  gap: 12px;
  height: 44px;
  padding: 0 20px;
  background: var(--paper);
  border-bottom: 1px solid var(--line);
}
.mark {
  display: inline-flex;
  align-items: center;
  gap: 12px;
  color: var(--ink);
  text-decoration: none;
}
.title {
  font-size: 15px;
  max-width: 40ch;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.plain-link {
  text-decoration: none;
}
@media (max-width: 900px) {
  .top-bar > code {
    display: none;
  }
}
.person {
  width: 28px;
  height: 28px;
  border-radius: 14px;
  border: 0;
  background: var(--verdigris-wash);
  color: var(--verdigris);
  font-weight: 700;
  font-size: 12px;
  cursor: pointer;
}
</style>
