import { plainText } from './plain-text'

/** Who makes a change: the name people gave their device. */
export const whoSchema = plainText(100).min(1).required()
