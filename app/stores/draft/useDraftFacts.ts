import type { Accepted } from '#core/prove/acceptance'
import type { LoadedForm } from '#shared/api/forms'
import type { ReleaseBrief } from '#shared/api/releases'

/** What is known of a draft beside its form, as it was fetched. */
export function useDraftFacts() {
  const releases = ref<ReleaseBrief[]>([])
  /** How many responses there are to all releases; null for who may not see them. */
  const responses = ref<number | null>(0)
  /** Risks that somebody has accepted. */
  const accepted = shallowRef<readonly Accepted[]>([])
  /** What the workspace says of itself, and the looks that it keeps. */
  const workspace = ref<LoadedForm['workspace']>({ name: '', address: '' })
  const looks = shallowRef<LoadedForm['looks']>([])

  const forgetLook = (name: string) => (looks.value = looks.value.filter(l => l.name !== name))
  function rememberLook(look: LoadedForm['looks'][number]) {
    const others = looks.value.filter(l => l.name !== look.name)
    looks.value = [...others, look].toSorted((a, b) => a.name.localeCompare(b.name))
  }

  function know(loaded: LoadedForm) {
    releases.value = loaded.releases
    responses.value = loaded.responses
    accepted.value = loaded.accepted
    workspace.value = loaded.workspace
    looks.value = loaded.looks
  }
  /** The draft is not any release's any more. */
  function departFromReleases() {
    releases.value = releases.value.map(r => ({ ...r, sameAsDraft: false }))
  }
  return {
    releases,
    responses,
    accepted,
    workspace,
    looks,
    rememberLook,
    forgetLook,
    know,
    departFromReleases,
  }
}
