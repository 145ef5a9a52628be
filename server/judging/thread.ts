// What a thread of the pool can do: bundled into one file beside the server.
export { record, sheet, sheetPdf, standIn, summaryPdf, verdict, wiringPdf } from './work'
