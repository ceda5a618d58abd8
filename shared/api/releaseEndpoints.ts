import { z } from 'zod'
import { Opening } from '../../core/form/opening'
import { Id } from './ids'
import * as openings from './openings'
import * as releases from './releases'
import * as session from './session'
import { CounterInAddress } from './stored'

const Version = Id.extend({ release: CounterInAddress })

/** Releasing, and when a form takes responses. */
export const RELEASE_ENDPOINTS = {
  acceptRisk: {
    method: 'PUT',
    path: '/api/forms/:id/acceptances',
    params: Id,
    body: releases.Accepting,
    answer: z.array(releases.Acceptance),
  },
  releaseForm: {
    method: 'POST',
    path: '/api/forms/:id/releases',
    params: Id,
    body: releases.NewRelease,
    answer: releases.Released,
  },
  askApproval: {
    method: 'PUT',
    path: '/api/forms/:id/approval',
    params: Id,
    body: releases.AskApproval,
    answer: session.Done,
  },
  dropApproval: { method: 'DELETE', path: '/api/forms/:id/approval', params: Id, answer: session.Done },
  checkProof: {
    method: 'POST',
    path: '/api/forms/:id/releases/:release/proof',
    params: Version,
    answer: releases.CheckedProof,
  },
  weighStored: {
    method: 'GET',
    path: '/api/forms/:id/fit',
    params: Id,
    answer: releases.StoredFit,
  },
  listUnderWay: {
    method: 'GET',
    path: '/api/forms/:id/under-way',
    params: Id,
    answer: z.array(releases.TurnUnderWay),
  },
  withdrawRelease: {
    method: 'PUT',
    path: '/api/forms/:id/releases/:release/withdrawal',
    params: Version,
    body: openings.Withdrawal,
    answer: session.Done,
  },
  loadOpening: {
    method: 'GET',
    path: '/api/forms/:id/opening',
    params: Id,
    answer: openings.LoadedOpening,
  },
  saveOpening: {
    method: 'PUT',
    path: '/api/forms/:id/opening',
    params: Id,
    body: Opening,
    answer: openings.LoadedOpening,
  },
} as const
