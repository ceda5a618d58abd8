<script setup lang="ts">
import { API } from '#shared/api/endpoints'
import type { Filing, FormBrief } from '#shared/api/forms'
import { callApi } from '~/api/callApi'
import type { FormAct } from './formActs'

/** Does what was chosen for a form, after asking where that is due. */
const props = defineProps<{ known: readonly string[] }>()
const emit = defineEmits<{ changed: []; refused: [cause: unknown] }>()
const { say } = useSaid()
const asked = shallowRef<{ act: FormAct; form: FormBrief } | null>(null)

function begin(act: FormAct, form: FormBrief) {
  if (act === 'archive') void archive(form)
  else asked.value = { act, form }
}
defineExpose({ begin })

async function run(what: () => Promise<unknown>, done: string) {
  asked.value = null
  try {
    await what()
    say(done)
  } catch (cause) {
    emit('refused', cause)
  }
  emit('changed')
}
/** What one may do may be another thing now. */
function closeSharing() {
  asked.value = null
  emit('changed')
}
const file = ({ id, tags, isArchived }: FormBrief, to: Partial<Filing>) =>
  callApi(API.fileForm, { params: { id }, body: { tags, isArchived, ...to } })
const archive = (form: FormBrief) =>
  run(
    () => file(form, { isArchived: !form.isArchived }),
    form.isArchived ? `“${form.title}” is back.` : `“${form.title}” is in the archive. Its link stays open.`,
  )
const tag = (form: FormBrief, tags: string[]) =>
  run(() => file(form, { tags }), `The tags of “${form.title}” are kept.`)
const remove = ({ id, title }: FormBrief, confirmed: string) =>
  run(() => callApi(API.deleteForm, { params: { id }, query: { confirmed } }), `“${title}” is deleted.`)
const copy = ({ id }: FormBrief, title: string) =>
  run(async () => {
    const made = await callApi(API.copyForm, { params: { id }, body: { title } })
    await navigateTo(`/forms/${made.id}/write`)
  }, `“${title}” is made.`)
</script>

<template>
  <template v-if="asked">
    <CopyDialog
      v-if="asked.act === 'copy'"
      :form="asked.form"
      @close="asked = null"
      @copy="copy(asked.form, $event)"
    />
    <ShareDialog
      v-else-if="asked.act === 'share'"
      :form="asked.form.id"
      :title="asked.form.title"
      @close="closeSharing"
    />
    <TagsDialog
      v-else-if="asked.act === 'tag'"
      :form="asked.form"
      :known="props.known"
      @close="asked = null"
      @tag="tag(asked.form, $event)"
    />
    <DeleteForm
      v-else
      :form="asked.form"
      @close="asked = null"
      @archive="archive(asked.form)"
      @delete="remove(asked.form, $event)"
    />
  </template>
</template>
