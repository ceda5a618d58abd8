<script setup lang="ts">
import { API } from '#shared/api/endpoints'
import { callApi } from '~/api/callApi'

/** One response as it is read. */
const props = defineProps<{ id: string }>()
const emit = defineEmits<{ close: [] }>()
const id = computed(() => props.id)
const { data: open, error } = await useAsyncData(
  'response',
  () => callApi(API.loadResponse, { params: { id: id.value } }),
  { server: false, watch: [id] },
)
</script>

<template>
  <aside
    class="one"
    aria-label="One response"
  >
    <div class="row-flex">
      <h2>{{ open ? `Response ${open.number}` : 'One response' }}</h2>
      <span class="spread" /><v-btn @click="emit('close')"> Close </v-btn>
    </div>
    <RefusalAlert
      v-if="error"
      :refusal="`The response could not be fetched: ${refusalOf(error).sentence}`"
    />
    <template v-else-if="open">
      <p class="quiet small">
        Sent {{ readableDay(open.sentAt) }}, begun {{ readableDay(open.begunOn) }}, version {{ open.release }}
      </p>
      <p
        v-if="open.withdrawnAt"
        class="risk"
      >
        Withdrawn {{ readableDay(open.withdrawnAt) }}
      </p>
      <template v-if="open.turns.length > 0">
        <ResponseTurns :turns="open.turns" />
        <ResponseHistory :history="open.history" />
      </template>
      <dl>
        <template
          v-for="l in open.lines"
          :key="l.path"
        >
          <h3 v-if="l.heading">{{ l.heading }}</h3>
          <h4 v-if="l.entry">{{ l.entry }}</h4>
          <div :class="l.state">
            <dt>{{ l.label }}</dt>
            <dd>
              <template v-if="l.files.length > 0"
                ><a
                  v-for="f in l.files"
                  :key="f.file"
                  :href="`/api/files/${f.file}`"
                  download
                  >{{ f.name }}</a
                ></template
              >
              <svg
                v-else-if="l.drawn"
                viewBox="0 0 600 200"
                class="drawn"
                role="img"
                aria-label="Signature"
              >
                <path
                  :d="l.drawn"
                  fill="none"
                  stroke="currentColor"
                  stroke-width="3"
                />
              </svg>
              <AnswerWords
                v-else-if="l.state === 'answered'"
                :line="l"
              />
              <template v-else>{{ l.state === 'blank' ? 'left blank' : 'not asked' }}</template>
            </dd>
          </div>
        </template>
      </dl>
    </template>
  </aside>
</template>

<style scoped>
.one {
  background: var(--paper);
  border-left: 1px solid var(--line);
  padding: 20px;
  overflow-y: auto;
}
.one h3 {
  margin: 18px 0 4px;
}
.one h4 {
  margin: 10px 0 2px;
  color: var(--slate);
}
.drawn {
  width: 200px;
  max-width: 100%;
}
dd a {
  display: block;
}
dl > div {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
  padding: 6px 0;
  border-bottom: 1px dotted var(--line);
}
dt {
  color: var(--slate);
}
dd {
  font-weight: 600;
  overflow-wrap: anywhere;
}
.blank dd,
.unasked dd {
  font-weight: 400;
  color: var(--slate);
  font-style: italic;
}
.unasked dt {
  opacity: 0.8;
}
</style>
