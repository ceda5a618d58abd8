import { API } from '../../shared/api/endpoints'
import type { Power } from '../../shared/api/sharing'

/**
 * Who may call a route. `anyone`: also strangers, and what they get is decided by the token in the address; `signedIn`; `maker`, `admin`: by
 * role; `designing`: makers, and who may design some form; else by what somebody may do with the form that the address names, by itself or
 * through a response, turn or file of it; `by`: and by role.
 */
export type Access =
  | 'anyone'
  | 'signedIn'
  | 'maker'
  | 'designing'
  | 'admin'
  | { of: 'form' | 'response' | 'file' | 'turn'; needs: Power; by?: 'maker' }

const form = (needs: Power): Access => ({ of: 'form', needs })

/** Every route of the application and who may call it: what is not here is answered by nobody. */
export const ACCESS: Readonly<Record<keyof typeof API, Access>> = {
  signIn: 'anyone',
  signOut: 'anyone',
  loadSetUp: 'anyone',
  setUp: 'anyone',
  forgetPassword: 'anyone',
  openKey: 'anyone',
  choosePassword: 'anyone',
  loadHealth: 'anyone',

  loadAccount: 'signedIn',
  changeAccount: 'signedIn',
  changePassword: 'signedIn',
  endSession: 'signedIn',
  beginSecondFactor: 'signedIn',
  confirmSecondFactor: 'signedIn',
  removeSecondFactor: 'signedIn',

  listPeople: 'admin',
  invitePerson: 'admin',
  inviteAgain: 'admin',
  changePerson: 'admin',
  handOverForms: 'admin',
  createTeam: 'admin',
  changeTeam: 'admin',
  deleteTeam: 'admin',
  listRecord: 'admin',
  loadPost: 'admin',
  saveLook: 'maker',
  removeLook: 'maker',
  loadWorkspace: 'admin',
  saveWorkspace: 'admin',
  loadDirectory: 'designing',

  listForms: 'signedIn',
  createForm: 'maker',
  loadForm: form('read'),
  // The copy is a form that its maker owns.
  copyForm: { of: 'form', needs: 'read', by: 'maker' },
  fileForm: form('design'),
  deleteForm: form('own'),
  saveEdits: form('design'),
  loadChanges: form('read'),
  loadHistory: form('read'),
  loadState: form('read'),
  acceptRisk: form('design'),
  listSuggestions: form('read'),
  suggest: form('suggest'),
  // What may be decided by those who suggest is their own to take back; the route says so.
  decideSuggestion: form('suggest'),
  releaseForm: form('release'),
  withdrawRelease: form('release'),
  loadOpening: form('read'),
  saveOpening: form('release'),
  // Personal links open the form in somebody’s name: only who may release it sees them.
  listWays: form('release'),
  makeWay: form('release'),
  changeWay: form('release'),
  removeWay: form('release'),
  invitePeople: form('release'),
  postInvitations: form('release'),
  savePassphrase: form('release'),
  askApproval: form('release'),
  dropApproval: form('release'),
  checkProof: form('release'),
  makeShortAddress: form('release'),
  listUnderWay: form('release'),
  listShares: form('own'),
  shareForm: form('own'),
  listResponses: form('responses'),
  loadResponse: { of: 'response', needs: 'responses' },
  loadWorkbench: form('responses'),
  summariseResponses: form('responses'),
  crossResponses: form('responses'),
  loadPageSteps: form('responses'),
  // What more an act needs is said by the route: who deletes owns the form.
  actOnResponses: form('responses'),
  saveTrays: form('act'),
  // Who brings rows in sees what they change, too; the routes say so.
  weighImport: form('act'),
  takeImport: form('act'),
  saveRetention: form('own'),
  // One’s own, and what of the shared ones somebody may see; the service says so.
  listDashboards: 'signedIn',
  keepDashboard: 'signedIn',
  changeDashboard: 'signedIn',
  deleteDashboard: 'signedIn',
  // Only forms that whoever asks owns are looked through; the service says so.
  findAboutPerson: 'signedIn',
  handOutAboutPerson: 'signedIn',
  keepView: form('responses'),
  changeView: form('responses'),
  deleteView: form('responses'),
  noteResponse: { of: 'response', needs: 'responses' },
  // Who has one of these reads responses, or sends some, without signing in.
  listAccessKeys: form('own'),
  makeAccessKey: form('own'),
  removeAccessKey: form('own'),
  readLive: 'anyone',
  describeApi: 'anyone',
  listByKey: 'anyone',
  loadByKey: 'anyone',
  sendByKey: 'anyone',
  listHooksByKey: 'anyone',
  makeHookByKey: 'anyone',
  removeHookByKey: 'anyone',
  listDeliveries: form('responses'),
  deliverAgain: form('act'),
  // Letters and hooks hold what respondents wrote, of every form.
  loadOutsideWorld: 'admin',
  tellOutsideWorld: 'admin',
  // Who corrects has to see it, too; the route says so.
  loadCorrectable: { of: 'response', needs: 'act' },
  bringTemplate: form('design'),
  loadTemplate: form('read'),
  listTemplates: form('read'),
  makeDocument: { of: 'response', needs: 'act' },
  loadDocument: { of: 'response', needs: 'responses' },
  actOnPayment: { of: 'response', needs: 'act' },
  loadPayment: 'anyone',
  pay: 'anyone',
  amendResponse: { of: 'response', needs: 'act' },
  loadFile: { of: 'file', needs: 'responses' },
  exportResponses: form('responses'),
  loadBoard: form('responses'),
  // What it says of responses is said to who may see them.
  weighStored: form('responses'),
  actOnTurn: { of: 'turn', needs: 'act' },
  listInbox: 'signedIn',

  listSharedLists: 'designing',
  loadSharedList: 'designing',
  saveSharedList: 'maker',

  openLink: 'anyone',
  sendAnswers: 'anyone',
  refetchForm: 'anyone',
  searchRows: 'anyone',
  countStep: 'anyone',
  returnTurn: 'anyone',
  keepTurn: 'anyone',
  readFile: 'anyone',
  giveFile: 'anyone',
  enterPassphrase: 'anyone',
  mailCopy: 'anyone',
  fetchDocument: 'anyone',
  readToSign: 'anyone',
  checkFile: 'anyone',
  keepAnswers: 'anyone',
  recallAnswers: 'anyone',
  mailKept: 'anyone',
}

/** A route as the address of a request finds it. */
export interface Found {
  access: Access
  params: Readonly<Record<string, string>>
}

const ROUTES = Object.entries(API).map(([name, { method, path }]) => ({
  name,
  method,
  parts: path.split('/'),
}))

const isName = (name: string): name is keyof typeof API => Object.hasOwn(API, name)

/** The listed route of a method and path; null where there is none. HEAD is GET without a body. */
export function findRoute(method: string, path: string): Found | null {
  const asked = method === 'HEAD' ? 'GET' : method
  const parts = path.split('/')
  for (const route of ROUTES) {
    if (route.method !== asked || route.parts.length !== parts.length || !isName(route.name)) continue
    const params = matchParts(route.parts, parts)
    if (params) return { access: ACCESS[route.name], params }
  }
  return null
}

function matchParts(wanted: readonly string[], parts: readonly string[]): Record<string, string> | null {
  const params: Record<string, string> = {}
  for (const [i, part] of wanted.entries()) {
    const given = parts[i] ?? ''
    if (!part.startsWith(':')) {
      if (part !== given) return null
      continue
    }
    if (given === '') return null
    params[part.slice(1)] = given
  }
  return params
}
