<script setup lang="ts">
import { linesByHeading } from '#core/fill/linesByHeading'
import type { ReadLine } from '#core/parties/readResponse'

/** The answers of a response, as they are read. */
const props = defineProps<{ lines: readonly ReadLine[] }>()
const blocks = computed(() => linesByHeading(props.lines))
/** What a browser shows as a picture; its content was looked at when it was given. */
const isPicture = (name: string) => /\.(?:jpe?g|png|gif|webp)$/i.test(name)
function sayNothing({ isAhead, state }: ReadLine): string {
  if (isAhead) return 'not answered yet'
  return state === 'blank' ? 'left blank' : 'not asked'
}
</script>

<template>
  <div>
    <template
      v-for="{ first, lines: own } in blocks"
      :key="first.path"
    >
      <h3 v-if="first.heading">{{ first.heading }}</h3>
      <h4 v-if="first.entry">{{ first.entry }}</h4>
      <dl>
        <div
          v-for="l in own"
          :key="l.path"
          :class="l.state"
        >
          <dt>{{ l.label }}</dt>
          <dd>
            <template v-if="l.files.length > 0"
              ><a
                v-for="f in l.files"
                :key="f.file"
                :href="`/api/files/${f.file}`"
                download
                ><img
                  v-if="isPicture(f.name)"
                  :src="`/api/files/${f.file}`"
                  :alt="`Picture given for ${l.label}`"
                  loading="lazy"
                  class="picture"
                />{{ f.name }}</a
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
            <template v-else
              >{{ sayNothing(l)
              }}<span
                v-if="l.why"
                class="why"
                >{{ l.why }}</span
              ></template
            >
          </dd>
        </div>
      </dl>
    </template>
  </div>
</template>

<style scoped>
h3 {
  margin: 18px 0 4px;
}
/* By which rule it was not asked. */
.why {
  display: block;
  font-size: 12px;
  color: var(--verdigris);
}
h4 {
  margin: 10px 0 2px;
  color: var(--slate);
}
.picture {
  display: block;
  max-width: 100%;
  max-height: 220px;
  border-radius: 2px;
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
</style>
