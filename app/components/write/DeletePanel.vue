<script setup lang="ts">
import { placeName } from '#core/form/walk'

/** Says who uses what is about to be deleted. */
const emit = defineEmits<{ close: [] }>()
const script = useScript()
const keep = useTemplateRef('keep')
onMounted(() => focusOn(keep.value))
function go(sure: boolean) {
  const { value } = script.doomed
  script.doomed.value = null
  if (sure && value) script.remove(value.addresses, true)
  emit('close')
}
</script>

<template>
  <div
    v-if="script.doomed.value"
    class="delete"
    role="alertdialog"
    aria-label="Delete something in use"
    @keydown.esc.stop="go(false)"
  >
    <p>
      <strong
        >{{
          script.doomed.value.uses.length === 1
            ? 'One place uses'
            : `${script.doomed.value.uses.length} places use`
        }}
        what you are about to delete.</strong
      >
      Their rules will be faults until you mend them.
    </p>
    <ul class="small">
      <li
        v-for="(u, i) in script.doomed.value.uses.slice(0, 12)"
        :key="i"
      >
        {{ u.place.number }} {{ placeName(u.place) }}: {{ u.words }}
      </li>
    </ul>
    <div class="row-flex">
      <v-btn
        ref="keep"
        @click="go(false)"
      >
        Keep it</v-btn
      ><v-btn
        class="fault"
        @click="go(true)"
      >
        Delete it all the same
      </v-btn>
    </div>
  </div>
</template>

<style scoped>
.delete {
  padding: 10px 16px;
  background: var(--madder-wash);
  border-bottom: 1px solid var(--madder);
  display: grid;
  gap: 6px;
}
</style>
