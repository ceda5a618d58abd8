<script setup lang="ts">
import { API } from '#shared/api/endpoints'
import { callApi } from '~/api/callApi'

/** The second factor of one's own account: set with an authenticator, or taken away. */
const props = defineProps<{ isSet: boolean }>()
const emit = defineEmits<{ changed: [] }>()
const { say } = useSaid()
const password = ref('')
const code = ref('')
const begun = shallowRef<{ secret: string; picture: string } | null>(null)
const refusal = ref<ReturnType<typeof refusalOf> | null>(null)
const picture = computed(() => `data:image/svg+xml,${encodeURIComponent(begun.value?.picture ?? '')}`)

async function run(what: () => Promise<unknown>) {
  refusal.value = null
  try {
    await what()
  } catch (error) {
    refusal.value = refusalOf(error)
  }
}
const begin = () =>
  run(async () => {
    begun.value = await callApi(API.beginSecondFactor, { body: { password: password.value } })
    password.value = ''
  })
const confirm = () =>
  run(async () => {
    await callApi(API.confirmSecondFactor, { body: { code: code.value } })
    begun.value = null
    code.value = ''
    say('From now on, signing in asks for a code as well.')
    emit('changed')
  })
const remove = () =>
  run(async () => {
    await callApi(API.removeSecondFactor, { body: { password: password.value } })
    password.value = ''
    say('Signing in asks for your password alone.')
    emit('changed')
  })
</script>

<template>
  <section
    class="sheet"
    aria-labelledby="factor"
  >
    <h2 id="factor">Second factor</h2>
    <p class="quiet">
      {{
        props.isSet
          ? 'Signing in asks for a code of your authenticator.'
          : 'With an authenticator on your phone, a stolen password alone opens nothing.'
      }}
    </p>
    <form
      v-if="begun"
      class="row-flex begun"
      @submit.prevent="confirm"
    >
      <img
        :src="picture"
        alt="The secret as a square code"
        width="168"
        height="168"
      />
      <div class="fields">
        <p>Point your authenticator at the square, or type this into it:</p>
        <code class="secret">{{ begun.secret }}</code>
        <LabelledField
          v-model="code"
          label="The code that it shows"
          autocomplete="one-time-code"
          inputmode="numeric"
          required
        />
        <div class="row-flex">
          <v-btn
            type="submit"
            variant="flat"
            color="primary"
            >Let it count</v-btn
          >
          <v-btn @click="begun = null">Leave it</v-btn>
        </div>
      </div>
    </form>
    <form
      v-else
      class="fields"
      @submit.prevent="props.isSet ? remove() : begin()"
    >
      <LabelledField
        v-model="password"
        label="Your password"
        type="password"
        autocomplete="current-password"
        required
      />
      <div>
        <v-btn
          type="submit"
          :disabled="!password"
        >
          {{ props.isSet ? 'Take the second factor away' : 'Set a second factor' }}
        </v-btn>
      </div>
    </form>
    <RefusalAlert :refusal="refusal" />
  </section>
</template>

<style scoped>
.fields {
  display: grid;
  gap: 12px;
  max-width: 360px;
}
.begun {
  align-items: start;
  gap: 20px;
}
.begun img {
  background: #fff;
}
.secret {
  overflow-wrap: anywhere;
}
</style>
