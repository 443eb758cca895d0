/** The papers that a card is made for; the page's styles name their sheets. */
export const PAPERS = ['a4', 'a5', 'letter'] as const
export type Paper = (typeof PAPERS)[number]
