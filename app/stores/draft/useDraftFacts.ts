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

  function know(loaded: LoadedForm) {
    releases.value = loaded.releases
    responses.value = loaded.responses
    accepted.value = loaded.accepted
  }
  /** The draft is not any release's any more. */
  function departFromReleases() {
    releases.value = releases.value.map(r => ({ ...r, sameAsDraft: false }))
  }
  return { releases, responses, accepted, know, departFromReleases }
}
