import type { Content } from 'pdfmake/interfaces'

export const ruleInk = '#b9b4a6'

/** Only hairlines between rows. */
export const ruled = {
  hLineWidth: (i: number) => (i === 0 ? 0 : 0.4),
  vLineWidth: () => 0,
  hLineColor: () => ruleInk,
  paddingLeft: () => 0,
  paddingRight: () => 6,
  paddingTop: () => 2,
  paddingBottom: () => 1,
}
/** A box around, its title above hairlines between rows. */
export const card = {
  hLineWidth: (i: number, { table }: { table: { body: unknown[] } }) =>
    i === 0 || i === table.body.length ? 0.5 : i === 1 ? 0 : 0.4,
  vLineWidth: (i: number) => (i === 1 ? 0 : 0.5),
  hLineColor: () => ruleInk,
  vLineColor: () => ruleInk,
  paddingLeft: () => 6,
  paddingRight: () => 6,
  paddingTop: (i: number) => (i === 0 ? 4 : 2),
  paddingBottom: () => 1.5,
}

/** Space between two boxes next to each other, pt. */
export const pairGapPt = 12

/** Boxes two by two, each pair on one page. */
export const inPairs = (boxes: readonly Content[]): Content[] =>
  boxes.flatMap((box, i) =>
    i % 2 > 0
      ? []
      : [
          {
            columns: [box, boxes[i + 1] ?? { text: '' }],
            columnGap: pairGapPt,
            unbreakable: true,
            margin: [0, 3, 0, 6],
          },
        ],
  )
