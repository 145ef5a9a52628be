// What a thread of the pool can do: bundled into one file next to the server.
export { check, pdf, plain, quotation, record, sheet, standIn, verdict, warm } from './work'
