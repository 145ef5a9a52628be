// What a thread of the pool can do: bundled into one file beside the server.
export { sheet, sheetPdf, summaryPdf, verdict, wiringPdf } from './work'
