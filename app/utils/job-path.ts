/** The job whose view an address is; undefined for a paper that was issued, which needs nothing of the job. */
export const jobOfView = (path: string): string | undefined =>
  /^\/jobs\/([^/]+)(?:$|\/(?!sheets\/))/.exec(path)?.[1]
