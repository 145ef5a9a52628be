// What a thread of the pool can do: bundled into one file next to the server.
export { check, pdf, quotation, record, sheet, standIn, summary, verdict, warm, wiring } from './work'
