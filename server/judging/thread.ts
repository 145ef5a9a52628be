// The tasks of a pool thread: bundled into one file next to the server.
export { check, pdf, plain, quotation, record, sheet, standIn, verdict, warm } from './work'
