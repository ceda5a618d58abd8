<script setup lang="ts">
import { callLink } from '~/api/callLink'

/** Asks for the passphrase of a form, then opens it. */
const props = defineProps<{ link: string }>()
const passphrase = ref('')
const refusal = ref('')
const busy = ref(false)
async function enter() {
  busy.value = true
  refusal.value = ''
  try {
    const body = { passphrase: passphrase.value }
    await callLink('enterPassphrase', { params: { token: props.link }, body })
    // The page comes anew from the server, with all that the link brings.
    window.location.reload()
  } catch (error) {
    refusal.value = refusalOf(error).sentence
    busy.value = false
  }
}
</script>

<template>
  <form @submit.prevent="enter">
    <label>
      Passphrase
      <v-text-field
        v-model="passphrase"
        type="password"
        autocomplete="off"
        maxlength="200"
        :error="refusal !== ''"
      />
    </label>
    <p
      v-if="refusal"
      role="alert"
      class="fault small"
    >
      {{ refusal }}
    </p>
    <div>
      <v-btn
        type="submit"
        variant="flat"
        color="primary"
        class="big"
        :disabled="busy || passphrase.trim() === ''"
      >
        Open the form
      </v-btn>
    </div>
  </form>
</template>

<style scoped>
form {
  display: grid;
  gap: 14px;
  max-width: 360px;
}
label {
  display: grid;
  gap: 4px;
}
.big {
  min-height: 46px;
  padding: 8px 20px;
}
</style>
