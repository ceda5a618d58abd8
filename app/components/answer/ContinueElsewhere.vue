<script setup lang="ts">
import { callLink } from '~/api/callLink'

/** Going on later or on another device, by a private link: made when it is asked for, shown, copied, posted. */
const props = defineProps<{
  token: string
  link: string | null
  secret: string | null
  mayMail: boolean
  keep: () => Promise<void>
}>()
const { busy, said, attempt } = useAttempt()
const address = ref('')
const make = () =>
  attempt(async () => {
    await props.keep()
    return 'Your answers are kept on the server from now on, until they are sent, for 30 days at most.'
  })
const copy = () =>
  attempt(async () => {
    await navigator.clipboard.writeText(props.link ?? '')
    return 'Copied. Whoever has this link reads your answers.'
  })
const post = () =>
  attempt(async () => {
    const body = { secret: props.secret ?? '', to: address.value.trim() }
    await callLink('mailKept', { params: { token: props.token }, body })
    return `The link is on its way to ${body.to}.`
  })
</script>

<template>
  <section
    class="elsewhere small"
    aria-label="Go on elsewhere"
  >
    <div v-if="link === null">
      <v-btn
        variant="text"
        :disabled="busy"
        @click="make"
      >
        Go on later or on another device …
      </v-btn>
    </div>
    <template v-else>
      <p>Open this private link where you want to go on. What you type here from now on is there, too.</p>
      <p class="row-flex">
        <code data-testid="continue">{{ link }}</code>
        <v-btn
          variant="text"
          @click="copy"
        >
          Copy
        </v-btn>
      </p>
      <form
        v-if="mayMail"
        class="row-flex"
        @submit.prevent="post"
      >
        <v-text-field
          v-model="address"
          type="email"
          autocomplete="email"
          aria-label="Address that the link is posted to"
          placeholder="name@wherry.example"
          maxlength="200"
        />
        <v-btn
          type="submit"
          :disabled="busy || !address.includes('@')"
        >
          Post it to me
        </v-btn>
      </form>
    </template>
    <p
      role="status"
      class="quiet"
    >
      {{ said }}
    </p>
  </section>
</template>

<style scoped>
.elsewhere {
  display: grid;
  gap: 8px;
  border-top: 1px solid var(--line);
  padding-top: 12px;
}
code {
  overflow-wrap: anywhere;
}
.v-text-field {
  max-width: 280px;
}
</style>
