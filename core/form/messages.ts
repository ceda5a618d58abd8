import { z } from 'zod'
import { Text } from './fields'

/** What can be wrong with an answer by itself, whatever the form asks for: what it is called, and what is said where nobody says otherwise. */
export const MESSAGES = {
  missing: { name: 'no answer', builtIn: 'This needs an answer.' },
  notANumber: { name: 'not a number', builtIn: 'Type a number, such as 9.5.' },
  tooPrecise: { name: 'too many digits', builtIn: 'Type at most 2 digits after the point.' },
  tooSmall: { name: 'too small', builtIn: 'This must be at least 2.' },
  tooLarge: { name: 'too large', builtIn: 'This must be at most 40.' },
  tooShort: { name: 'too short', builtIn: 'This has 3 characters; at least 10 are needed.' },
  tooLong: { name: 'too long', builtIn: 'This has 90 characters; at most 80 fit.' },
  notADate: { name: 'not a date or time', builtIn: 'Type a date of the calendar, such as 24 Nov 2026.' },
  tooEarly: { name: 'too early', builtIn: 'This must be 24 Nov 2026 or later.' },
  tooLate: { name: 'too late', builtIn: 'This must be 24 Nov 2026 or earlier.' },
  notAnEmail: { name: 'not an e-mail address', builtIn: 'The “@” is missing, or what is wrong with it.' },
  notAPhone: { name: 'not a phone number', builtIn: 'A phone number has at least 5 digits.' },
  notAUrl: { name: 'not a web address', builtIn: 'A web address begins with https:// or http://.' },
  notOffered: { name: 'not on offer', builtIn: 'This choice is not on offer.' },
  tooFew: { name: 'too few', builtIn: 'Choose at least 2.' },
  tooMany: { name: 'too many', builtIn: 'Choose at most 3.' },
} as const
export type MessageKind = keyof typeof MESSAGES
const isMessageKind = (name: string): name is MessageKind => Object.hasOwn(MESSAGES, name)
/** All of them, in the order in which they are listed. */
export const ALL_MESSAGES = Object.keys(MESSAGES).filter(isMessageKind)

const Message = Text.min(1)
const OF_ANSWERS = {
  notANumber: Message.optional(),
  tooPrecise: Message.optional(),
  tooSmall: Message.optional(),
  tooLarge: Message.optional(),
  tooShort: Message.optional(),
  tooLong: Message.optional(),
  notADate: Message.optional(),
  tooEarly: Message.optional(),
  tooLate: Message.optional(),
  notAnEmail: Message.optional(),
  notAPhone: Message.optional(),
  notAUrl: Message.optional(),
  notOffered: Message.optional(),
  tooFew: Message.optional(),
  tooMany: Message.optional(),
}
/** A question's own words for what can be wrong with an answer to it; what is missing has a message of its own. They are shown as they stand. */
export const Messages = z.strictObject(OF_ANSWERS)
/** A form's own words for what can be wrong with an answer to any of its questions. */
export const FormMessages = z.strictObject({ missing: Message.optional(), ...OF_ANSWERS })
export type Messages = z.infer<typeof Messages>
export type FormMessages = z.infer<typeof FormMessages>
