/** Where a photograph of the house is fetched, small for a list or large to look at. */
export function pictureOf(id: string, size: 'small' | 'large' = 'large'): string {
  return `/api/photos/${id}/${size}`
}
