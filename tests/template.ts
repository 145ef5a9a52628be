export { makeTemplate as default } from './harness'
