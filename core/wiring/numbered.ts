import type { Fitting, Network, Post, PostKind } from './network'

/** A post with a part that has a number. */
export type NumberedPost = Post & { readonly fitting: Fitting }

const isNumbered = (post: Post): post is NumberedPost => Boolean(post.fitting?.number)

/** Parts with a number that are there afterwards. @param kinds of posts; left out for all */
export const numberedPosts = (
  { posts }: Pick<Network, 'posts'>,
  kinds?: readonly PostKind[],
): NumberedPost[] =>
  posts.filter(isNumbered).filter(({ state, kind }) => state !== 'goes' && (!kinds || kinds.includes(kind)))
