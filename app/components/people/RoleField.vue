<script setup lang="ts">
import { ROLES, type Role } from '#shared/api/people'

/** Chooses what somebody is in the workspace. */
const role = defineModel<Role>({ required: true })
</script>

<template>
  <v-radio-group
    v-model="role"
    label="Role"
  >
    <v-radio
      v-for="r in ROLES"
      :key="r"
      :value="r"
    >
      <template #label
        ><span
          ><strong>{{ ROLE_NAMES[r] }}</strong> <span class="quiet small">{{ ROLE_ABOUT[r] }}</span></span
        ></template
      >
    </v-radio>
  </v-radio-group>
</template>
