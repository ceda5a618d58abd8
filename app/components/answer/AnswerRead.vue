<script setup lang="ts">
import type { Frame } from '#core/fill/fill'
import type { Step } from '#core/fill/planned'
import { describeStep } from '#core/fill/describeResponse'
import { FILE_ADDRESS } from './keys'

/** What somebody else answered, and this party only reads. */
const props = defineProps<{ step: Step; frame: Frame }>()
const lines = computed(() =>
  describeStep(props.step, props.frame).filter(l => l.state !== 'unasked' && l.type !== 'hidden'),
)
const addressOf = inject(FILE_ADDRESS, null)
</script>

<template>
  <dl
    v-if="lines.length > 0"
    class="read"
  >
    <template
      v-for="l in lines"
      :key="l.path"
    >
      <h3
        v-if="l.entry"
        class="small"
      >
        {{ l.entry }}
      </h3>
      <div>
        <dt>{{ l.label }}</dt>
        <dd :class="{ quiet: l.state === 'blank' }">
          <svg
            v-if="l.drawn"
            viewBox="0 0 600 200"
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
          <template v-else-if="addressOf && l.files.length > 0">
            <a
              v-for="f in l.files"
              :key="f.file"
              :href="addressOf(f.file)"
              download
              >{{ f.name }}</a
            >
          </template>
          <template v-else-if="l.state === 'blank'">left blank</template>
          <AnswerWords
            v-else
            :line="l"
          />
        </dd>
      </div>
    </template>
  </dl>
</template>

<style scoped>
.read {
  display: grid;
  gap: 4px;
  margin: -12px 0;
}
.read div {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 16px;
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
dd a {
  display: block;
}
dd.quiet {
  font-weight: 400;
  font-style: italic;
}
svg {
  width: 180px;
  max-width: 100%;
}
@container answers (width < 420px) {
  .read div {
    grid-template-columns: 1fr;
    gap: 2px;
  }
}
</style>
