import { endNews } from '../utils/news-stream'

/** The server's exit code if another program has its port; `npm start` knows it. */
const portTaken = 98

/** Longest wait for requests under way when the server stops, ms. */
const drainMs = 4000
const lookMs = 20

/**
 * A server that was started by another process ends with it, however that ends. Told to stop, it answers the requests
 * under way first.
 */
export default defineNitroPlugin(({ hooks }) => {
  if (process.env.ENDS_WITH_INPUT === 'yes') {
    process.stdin.on('end', () => process.exit(0))
    process.stdin.on('error', () => process.exit(0))
    process.stdin.resume()
  }

  // Otherwise it would live on without anyone being able to reach it.
  process.on('uncaughtException', (cause: NodeJS.ErrnoException) => {
    if (cause.code === 'EADDRINUSE' && cause.syscall === 'listen') process.exit(portTaken)
  })

  // The shutdown that the framework brings throws where a client left before its answer was sent.
  process.env.NITRO_SHUTDOWN_DISABLED = 'yes'
  let underWay = 0
  hooks.hook('request', ({ node: { res } }) => {
    // By this `npm start` knows its own server from another program.
    if (process.env.START_ID) res.setHeader('x-start', process.env.START_ID)
    underWay++
    res.once('close', () => underWay--)
  })
  const stop = (): void => {
    endNews()
    const until = Date.now() + drainMs
    setInterval(() => {
      if (underWay === 0 || Date.now() > until) process.exit(0)
    }, lookMs)
  }
  process.once('SIGTERM', stop)
  process.once('SIGINT', stop)
})
