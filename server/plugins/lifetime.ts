/** A server that was started by another process ends with it, however that ends. */
export default defineNitroPlugin(() => {
  if (process.env.ENDS_WITH_INPUT !== 'yes') return
  process.stdin.on('end', () => process.exit(0))
  process.stdin.on('error', () => process.exit(0))
  process.stdin.resume()
})
