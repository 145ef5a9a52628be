import Joi from 'joi'
import { roles } from '../repositories/actor'
import { anything, count, flag, id, list, moment, orNull, shape, text } from './shape'

const role = Joi.valid(...roles)
const token = Joi.string()

export const signedInAnswer = shape({ signedIn: flag })
export const signedOutAnswer = shape({ signedOut: flag })
export const sessionState = shape({
  isShop: flag,
  person: orNull(shape({ id: orNull(id), name: text, role })),
  needsOwner: flag,
})
export const ownSessions = list(shape({ id, device: text, createdAt: moment, seenAt: moment, isThis: flag }))
export const pinPeople = list(shape({ id, name: text }))
export const pinState = shape({ isSet: flag })
export const passkeyList = list(shape({ id: text, device: text, createdAt: moment, usedAt: orNull(moment) }))
export const passkeyOptions = anything('What the browser needs, as the Web Authentication standard names it.')
export const addedPasskey = shape({ added: text })
export const removedPasskey = shape({ removed: text })
export const endedOne = shape({ ended: id })
export const endedSome = shape({ ended: count })
export const invitedPerson = shape({ name: text, role, isNew: flag })
export const link = shape({ token, days: count })
export const newPerson = shape({ id, token, days: count })
export const changedPerson = shape({ id, role })
export const peopleList = list(
  shape({ id, name: text, role, hasJoined: flag, sessions: count, seenAt: orNull(moment) }),
)
export const pastNames = list(shape({ name: text, lastAt: moment }))

export const newKey = shape({ id, token })
export const keyList = list(
  shape({
    id,
    name: text,
    role,
    createdAt: moment,
    createdBy: text,
    endsAt: moment,
    usedAt: orNull(moment),
  }),
)
