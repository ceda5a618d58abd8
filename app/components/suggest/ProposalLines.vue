<script setup lang="ts">
import type { EditLine } from '#core/form/describeEdits'

/** What edits change, thing by thing: what stood there, and what is to stand there. */
defineProps<{ lines: readonly EditLine[] }>()
const emit = defineEmits<{ go: [address: NonNullable<EditLine['address']>] }>()
const ACTS = { added: 'Adds', deleted: 'Deletes', moved: 'Moves', changed: 'Changes' } as const
</script>

<template>
  <ul>
    <li
      v-for="(line, i) in lines"
      :key="i"
    >
      {{ ACTS[line.act] }}
      <v-btn
        v-if="line.address"
        variant="text"
        @click="emit('go', line.address)"
        >{{ line.name }}</v-btn><strong v-else>{{ line.name }}</strong
      ><template v-if="line.where"> <span class="quiet"> to </span>{{ line.where }} </template>
      <dl
        v-if="line.parts.length > 0"
        class="small"
      >
        <template
          v-for="part in line.parts"
          :key="part.key"
        >
          <dt class="quiet">{{ part.words }}</dt>
          <dd>
            <del v-if="part.before">{{ part.before }}</del><ins v-if="part.after">{{ part.after }}</ins
            ><span
              v-else
              class="quiet"
              >taken away</span
            >
          </dd>
        </template>
      </dl>
    </li>
  </ul>
</template>

<style scoped>
ul {
  display: grid;
  gap: 6px;
}
dl {
  display: grid;
  grid-template-columns: 130px minmax(0, 1fr);
  gap: 2px 12px;
  padding-left: 12px;
}
dd {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 10px;
  overflow-wrap: anywhere;
  white-space: pre-line;
}
del {
  color: var(--slate);
}
ins {
  text-decoration: none;
  border-bottom: 1.5px solid var(--verdigris);
}
</style>
