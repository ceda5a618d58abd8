import type { Ref } from 'vue'
import { watchDebounced } from '@vueuse/core'
import type { DocumentContent } from '#core/documents/content'
import type { Form } from '#core/form/definition'
import type { FormDocument } from '#core/form/documents'
import { practiceFiles } from '../rehearse/practiceFiles'
import type { PreviewAnswer, PreviewQuestion } from '~/workers/documents.worker'

/** Milliseconds after the last keystroke. */
const PAUSE = 200

/** A document as it would be with the practice answers: filled in a worker, anew with each answer and each change of the form. */
export function useDocumentPreview(document: () => FormDocument) {
  const rehearsal = useRehearsal()
  const content = shallowRef<DocumentContent | null>(null)
  const error = ref('')
  let worker: Worker | null = null
  let asked = 0
  /** The form that the worker has. */
  let shown: Form | null = null
  /** The pictures that it has. */
  const sent = new Set<string>()
  const send = (question: PreviewQuestion) => worker?.postMessage(question)
  const { isThere, bring } = useTemplateFile(document, send, error)

  function hear({ data }: MessageEvent<PreviewAnswer>) {
    if (data.asked !== asked) return
    error.value = data.error ?? ''
    if (data.content) content.value = data.content
  }
  function ask() {
    const { filled, answers, today, standing } = rehearsal
    if (!filled || !isThere.value) return
    asked += 1
    if (shown !== filled.plan.form) {
      // It may hold long lists: it goes over once.
      shown = filled.plan.form
      send({ is: 'form', form: toRaw(shown) })
    }
    for (const [id, bytes] of practiceFiles())
      if (!sent.has(id)) {
        sent.add(id)
        send({ is: 'picture', file: id, bytes })
      }
    send({
      ...{ is: 'document', asked, today },
      // What is reactive can’t be sent.
      template: JSON.parse(JSON.stringify(document().template)),
      answers: JSON.parse(JSON.stringify(answers)),
      standing: JSON.parse(JSON.stringify(standing)),
    })
  }
  onMounted(() => {
    worker = new Worker(new URL('../../workers/documents.worker.ts', import.meta.url), { type: 'module' })
    worker.addEventListener('message', hear)
    worker.addEventListener('error', event => (error.value = event.message))
    bring()
    watchDebounced([isThere, () => rehearsal.filled, () => document().template], ask, {
      debounce: PAUSE,
      immediate: true,
    })
  })
  onUnmounted(() => worker?.terminate())
  return { content, error }
}

/** The file that a template was brought in as, in the worker; what was written here needs none. */
function useTemplateFile(
  document: () => FormDocument,
  send: (question: PreviewQuestion) => void,
  error: Ref<string>,
) {
  const draft = useDraft()
  const file = computed(() => {
    const { template } = document()
    return 'written' in template ? '' : template.file
  })
  const brought = ref('')
  async function fetchFile(id: string) {
    if (id === '') return
    try {
      send({ is: 'template', file: id, bytes: await fetchTemplate(draft.id, id) })
      brought.value = id
    } catch (failure) {
      error.value = failure instanceof Error ? failure.message : String(failure)
    }
  }
  const isThere = computed(() => file.value === '' || file.value === brought.value)
  return { isThere, bring: () => watch(file, fetchFile, { immediate: true }) }
}

async function fetchTemplate(form: string, id: string): Promise<Uint8Array> {
  const answer = await fetch(`/api/forms/${form}/templates/${id}`)
  if (!answer.ok) throw new Error(`The template could not be fetched (${answer.status}).`)
  return new Uint8Array(await answer.arrayBuffer())
}
