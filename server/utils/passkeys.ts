import Joi from 'joi'

/** A browser's passkey message: words only, in two levels. The package that reads it checks the rest. */
const words = Joi.string().allow('').max(20_000)
export const passkeyResponse = <T>() =>
  Joi.object<{ response: T }>({
    response: Joi.object({
      id: Joi.string()
        .pattern(/^[\w-]{1,1400}$/)
        .required(),
      rawId: words.required(),
      type: Joi.valid('public-key').required(),
      authenticatorAttachment: words.allow(null),
      clientExtensionResults: Joi.object().unknown().required(),
      response: Joi.object().unknown().required(),
    }).required(),
  })
/** Size limit of a browser's passkey message. */
export const passkeyBytes = 64 * 1024
