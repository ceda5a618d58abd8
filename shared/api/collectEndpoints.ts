import { z } from 'zod'
import * as about from './aboutPerson'
import * as dashboards from './dashboards'
import * as deliveries from './deliveries'
import { Id } from './ids'
import * as documents from './documents'
import * as imports from './imports'
import * as pageSteps from './pageSteps'
import * as payments from './payments'
import * as responses from './responses'
import * as session from './session'
import * as summaries from './summaries'
import * as workbench from './workbench'

const OneRun = Id.extend({ run: z.uuid() })
const OneView = Id.extend({ view: z.uuid() })

/** Working with the responses of a form. */
export const COLLECT_ENDPOINTS = {
  listResponses: {
    method: 'GET',
    path: '/api/forms/:id/responses',
    params: Id,
    query: responses.ResponseQuery,
    answer: responses.ResponseTable,
  },
  actOnResponses: {
    method: 'POST',
    path: '/api/forms/:id/responses/acts',
    params: Id,
    body: workbench.ActOnResponses,
    answer: workbench.ActedOn,
  },
  summariseResponses: {
    method: 'GET',
    path: '/api/forms/:id/summary',
    params: Id,
    query: summaries.SummaryQuery,
    answer: summaries.Summary,
  },
  loadPageSteps: {
    method: 'GET',
    path: '/api/forms/:id/steps',
    params: Id,
    query: pageSteps.StepsQuery,
    answer: pageSteps.PageSteps,
  },
  crossResponses: {
    method: 'GET',
    path: '/api/forms/:id/cross-table',
    params: Id,
    query: summaries.CrossQuery,
    answer: summaries.CrossAnswer,
  },
  loadWorkbench: { method: 'GET', path: '/api/forms/:id/workbench', params: Id, answer: workbench.Workbench },
  saveTrays: {
    method: 'PUT',
    path: '/api/forms/:id/trays',
    params: Id,
    body: workbench.SaveTrays,
    answer: session.Done,
  },
  weighImport: {
    method: 'POST',
    path: '/api/forms/:id/imports/looks',
    params: Id,
    body: imports.WeighImport,
    answer: imports.WeighedImport,
  },
  takeImport: {
    method: 'POST',
    path: '/api/forms/:id/imports',
    params: Id,
    body: imports.TakeImport,
    answer: imports.TakenImport,
  },
  saveRetention: {
    method: 'PUT',
    path: '/api/forms/:id/retention',
    params: Id,
    body: workbench.SaveRetention,
    answer: session.Done,
  },
  keepView: {
    method: 'POST',
    path: '/api/forms/:id/views',
    params: Id,
    body: workbench.NewView,
    answer: z.object({ id: z.string() }),
  },
  changeView: {
    method: 'PUT',
    path: '/api/forms/:id/views/:view',
    params: OneView,
    body: workbench.NewView,
    answer: session.Done,
  },
  deleteView: { method: 'DELETE', path: '/api/forms/:id/views/:view', params: OneView, answer: session.Done },
  listDeliveries: {
    method: 'GET',
    path: '/api/forms/:id/deliveries',
    params: Id,
    query: deliveries.DeliveryQuery,
    answer: deliveries.DeliveryRuns,
  },
  deliverAgain: {
    method: 'POST',
    path: '/api/forms/:id/deliveries/:run',
    params: OneRun,
    answer: session.Done,
  },
  loadOutsideWorld: { method: 'GET', path: '/api/outside-world', answer: deliveries.OutsideWorld },
  tellOutsideWorld: {
    method: 'PUT',
    path: '/api/outside-world',
    body: deliveries.OutsideManner,
    answer: session.Done,
  },
  listDashboards: { method: 'GET', path: '/api/dashboards', answer: dashboards.Dashboards },
  keepDashboard: {
    method: 'POST',
    path: '/api/dashboards',
    body: dashboards.NewDashboard,
    answer: z.object({ id: z.string() }),
  },
  changeDashboard: {
    method: 'PUT',
    path: '/api/dashboards/:id',
    params: Id,
    body: dashboards.NewDashboard,
    answer: session.Done,
  },
  deleteDashboard: { method: 'DELETE', path: '/api/dashboards/:id', params: Id, answer: session.Done },
  findAboutPerson: {
    method: 'GET',
    path: '/api/about-person',
    query: about.AboutQuery,
    answer: about.AboutPerson,
  },
  handOutAboutPerson: {
    method: 'GET',
    path: '/api/about-person/hand-out',
    query: about.AboutQuery,
    answer: responses.FileContent,
  },
  bringTemplate: {
    method: 'POST',
    path: '/api/forms/:id/templates',
    params: Id,
    query: documents.TemplateName,
    answer: documents.BroughtTemplate,
  },
  listTemplates: {
    method: 'GET',
    path: '/api/forms/:id/templates',
    params: Id,
    answer: documents.KeptTemplates,
  },
  loadTemplate: {
    method: 'GET',
    path: '/api/forms/:id/templates/:template',
    params: documents.OneTemplate,
    query: documents.TemplateAs,
    answer: responses.FileContent,
  },
  makeDocument: {
    method: 'POST',
    path: '/api/responses/:id/documents',
    params: Id,
    body: documents.DocumentToMake,
    answer: session.Done,
  },
  loadDocument: {
    method: 'GET',
    path: '/api/responses/:id/documents/:document',
    params: documents.OneDocument,
    query: documents.DocumentAs,
    answer: responses.FileContent,
  },
  actOnPayment: {
    method: 'POST',
    path: '/api/responses/:id/payment',
    params: Id,
    body: payments.PaymentAct,
    answer: session.Done,
  },
  loadPayment: {
    method: 'GET',
    path: '/api/payments/:payment',
    params: payments.PaymentId,
    answer: payments.PaymentPage,
  },
  pay: {
    method: 'POST',
    path: '/api/payments/:payment',
    params: payments.PaymentId,
    answer: payments.PaymentPage,
  },
  loadResponse: {
    method: 'GET',
    path: '/api/responses/:id',
    params: Id,
    answer: responses.ResponseDetails,
  },
  loadCorrectable: {
    method: 'GET',
    path: '/api/responses/:id/answers',
    params: Id,
    answer: workbench.Correctable,
  },
  amendResponse: {
    method: 'PUT',
    path: '/api/responses/:id/answers',
    params: Id,
    body: workbench.Correction,
    answer: session.Done,
  },
  noteResponse: {
    method: 'POST',
    path: '/api/responses/:id/notes',
    params: Id,
    body: workbench.Note,
    answer: session.Done,
  },
} as const
