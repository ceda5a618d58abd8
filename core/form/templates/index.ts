import type { Template } from '../building'
import { HARBOUR_TEMPLATES } from './harbour'
import { OFFICE_TEMPLATES } from './offices'
import { PEOPLE_TEMPLATES } from './people'

/** Forms to start from, each proven clean (a test sees to it). */
export const TEMPLATES: readonly Template[] = [...OFFICE_TEMPLATES, ...PEOPLE_TEMPLATES, ...HARBOUR_TEMPLATES]
