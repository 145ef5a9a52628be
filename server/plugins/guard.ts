import { createHash } from 'node:crypto'
import { contentPolicy, guard } from '../utils/guard'

const inlineScript = /<script(?![^>]*\ssrc=)[^>]*>([^<]*)<\/script>/g
const digestOf = (text: string): string => createHash('sha256').update(text).digest('base64')

/** The guard stands before everything, the files of the page too; and the page names the scripts within it. */
export default defineNitroPlugin(({ h3App, hooks }) => {
  h3App.use(guard)
  h3App.stack.unshift(h3App.stack.pop()!)
  hooks.hook('render:response', ({ body, headers = {} }, { event }) => {
    const scripts = [...String(body).matchAll(inlineScript)].map(([, text]) => digestOf(text!))
    setResponseHeader(event, 'content-security-policy', contentPolicy(scripts))
    delete headers['x-powered-by']
    removeResponseHeader(event, 'x-powered-by')
  })
})
