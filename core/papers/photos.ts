import type { PaperPhoto, Section } from './blocks'

/** Photos as a section; nothing where there is none. */
export const photosSection = (photos: readonly PaperPhoto[] | undefined): Section[] =>
  photos === undefined || photos.length === 0
    ? []
    : [{ heading: 'Photographs', blocks: [{ kind: 'photos', photos }] }]
