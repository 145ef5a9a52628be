/** Papers that can show photos of the job. */
export const photoPapers = {
  summary: 'Summary',
  quotation: 'Quotation',
  record: 'Record',
  booklet: 'Booklet',
} as const
export type PhotoPaper = keyof typeof photoPapers

/** Photos in one paper, at most: each is frozen in it. */
export const mostPaperPhotos = 6

/** A photo of the job as papers show it. */
export interface PhotoChoice {
  readonly caption: string
  readonly papers: readonly PhotoPaper[]
}
/** By the id of the photo. */
export type PhotoChoices = Readonly<Record<string, PhotoChoice>>

/** Photos that a paper shows, each with its caption, in the order given. */
export const photosIn = <T extends { readonly id: string }>(
  choices: PhotoChoices | undefined,
  paper: string,
  photos: readonly T[],
): readonly { readonly photo: T; readonly caption: string }[] =>
  photos
    .flatMap((photo) => {
      const choice = choices?.[photo.id]
      return choice?.papers.includes(paper as PhotoPaper) ? [{ photo, caption: choice.caption }] : []
    })
    .slice(0, mostPaperPhotos)

/** Choices with one changed; a photo without caption and paper is left out. */
export function withPhotoChoice(
  choices: PhotoChoices | undefined,
  id: string,
  change: Partial<PhotoChoice>,
): PhotoChoices {
  const { [id]: before, ...others } = choices ?? {}
  const choice: PhotoChoice = { caption: '', papers: [], ...before, ...change }
  return choice.caption === '' && choice.papers.length === 0 ? others : { ...others, [id]: choice }
}

/** The name of a choice; null for any other path. */
export const photoLabel = (path: string): string | null =>
  path.split('/')[0] === 'paperPhotos' ? 'Photos in papers' : null
